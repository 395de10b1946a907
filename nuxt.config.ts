/** A build for a purpose (start, test) has its own folder: see scripts/lib/build.mjs. */
const buildFolder = process.env.PLAIN_MATCH_BUILD

const COMPONENTS = ['Button', 'ContextMenu', 'Dialog', 'InputText', 'Select', 'Textarea']

export default defineNuxtConfig({
  // In development the builder asks for a server entry even where nothing is rendered on the server (nuxt 4.4.5): it is named, and never run.
  modules: ['@pinia/nuxt', '@primevue/nuxt-module'],
  $development: { vite: { environments: { ssr: { build: { rollupOptions: { input: { server: 'nuxt/dist/app/entry-spa' } } } } } } },
  // One page application: everything it shows comes from the local store, and it shall work where the server is out of reach.
  ssr: false,
  components: { dirs: [] },
  imports: { autoImport: false },
  devtools: { enabled: false },
  app: {
    head: {
      title: 'Plain Match',
      htmlAttrs: { lang: 'en' },
      meta: [
        { name: 'viewport', content: 'width=device-width, initial-scale=1, interactive-widget=resizes-content' },
        { name: 'description', content: 'Matches loudspeakers to amplifiers, checks the wiring, finds the fault.' },
      ],
      link: [{ rel: 'icon', type: 'image/svg+xml', href: '/icon.svg' }],
    },
  },
  css: [
    '@fontsource/atkinson-hyperlegible-next/400.css', '@fontsource/atkinson-hyperlegible-next/600.css', '@fontsource/atkinson-hyperlegible-next/700.css',
    '@fontsource/atkinson-hyperlegible-mono/400.css', '@fontsource/atkinson-hyperlegible-mono/600.css',
    '~/theme/base.css',
  ],
  buildDir: buildFolder ? `${buildFolder}/nuxt` : '.nuxt',
  sourcemap: false,
  // A page that cannot be fetched is said in words (app.vue); the framework would load all anew, which is the browser’s error page.
  experimental: { payloadExtraction: false, appManifest: false, emitRouteChunkError: 'manual' },
  compatibilityDate: '2026-01-01',
  nitro: {
    ...(buildFolder ? { output: { dir: `${buildFolder}/output` } } : {}),
    // Brotli took 10 s of the 34 s of a build for a fifth of the bytes less on a network of the house; the server's source map 3 s.
    compressPublicAssets: { gzip: true, brotli: false },
    sourceMap: false,
    // The policy for pages, with the hash of the framework's own inline script, is set in server/plugins/headers.ts.
    routeRules: {
      '/**': {
        headers: {
          'x-content-type-options': 'nosniff', 'x-frame-options': 'DENY', 'referrer-policy': 'same-origin', 'cross-origin-opener-policy': 'same-origin',
          'cross-origin-resource-policy': 'same-origin', 'permissions-policy': 'camera=(), geolocation=(), microphone=(self)',
        },
      },
      '/api/**': { headers: { 'cache-control': 'no-store', 'content-security-policy': `default-src 'none'; frame-ancestors 'none'` } },
    },
    typescript: { strict: true },
  },
  vite: { build: { reportCompressedSize: false } },
  typescript: { strict: true },
  telemetry: false,
  hooks: {
    // Every page would be fetched with the first one, before its data: app.vue fetches them when that one stands.
    'build:manifest': (manifest) => { for (const chunk of Object.values(manifest)) chunk.prefetch = false },
  },
  primevue: {
    autoImport: false,
    components: { include: COMPONENTS },
    directives: { include: [] },
    composables: { include: [] },
    importTheme: { from: '~/theme/preset.ts' },
  },
})
