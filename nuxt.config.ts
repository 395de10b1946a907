/** A build for a purpose (start, test) has its own folder: see scripts/lib/build.mjs. */
const buildFolder = process.env.PLAIN_MATCH_BUILD

const COMPONENTS = ['Button', 'Dialog', 'InputText', 'Select', 'Textarea']

export default defineNuxtConfig({
  compatibilityDate: '2026-01-01',
  // One page application: everything it shows comes from the local store, and it shall work where the server is out of reach.
  ssr: false,
  telemetry: false,
  devtools: { enabled: false },
  modules: ['@pinia/nuxt', '@primevue/nuxt-module'],
  components: false,
  imports: { autoImport: false },
  css: [
    '@fontsource/atkinson-hyperlegible-next/400.css', '@fontsource/atkinson-hyperlegible-next/600.css', '@fontsource/atkinson-hyperlegible-next/700.css',
    '@fontsource/atkinson-hyperlegible-mono/400.css', '@fontsource/atkinson-hyperlegible-mono/600.css',
    '~/theme/base.css',
  ],
  app: {
    head: {
      title: 'Plain Match',
      htmlAttrs: { lang: 'en' },
      meta: [
        { name: 'viewport', content: 'width=device-width, initial-scale=1' },
        { name: 'description', content: 'Matches loudspeakers to amplifiers, checks the wiring, finds the fault.' },
      ],
      link: [{ rel: 'icon', type: 'image/svg+xml', href: '/icon.svg' }],
    },
  },
  primevue: {
    autoImport: false,
    components: { include: COMPONENTS },
    directives: { include: [] },
    composables: { include: [] },
    importTheme: { from: '~/theme/preset.ts' },
  },
  buildDir: buildFolder ? `${buildFolder}/nuxt` : '.nuxt',
  nitro: {
    ...(buildFolder ? { output: { dir: `${buildFolder}/output` } } : {}),
    compressPublicAssets: true,
    typescript: { strict: true },
  },
  typescript: { strict: true },
  experimental: { payloadExtraction: false, appManifest: false },
})
