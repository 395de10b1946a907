/** A build for a purpose (start, test) has its own folder: see scripts/lib/build.mjs. */
const buildFolder = process.env.PLAIN_MATCH_BUILD

const COMPONENTS = ['Button', 'Checkbox', 'ContextMenu', 'Dialog', 'InputText', 'Popover', 'ProgressBar', 'Select', 'SelectButton', 'Slider', 'Tab', 'TabList', 'Tabs', 'Textarea']

/**
 * Zod's writers of JSON schemas come along with every schema; the pages write none (`npm run schemas` does). Without them each first page is 8 kB lighter.
 * What is asked of the module by name does nothing.
 */
const noSchemaWriters = {
  name: 'no-schema-writers',
  load(id: string) {
    if (/zod\/v4\/core\/json-schema-processors\.js$/.test(id)) return 'export const allProcessors = {}'
    if (!/zod\/v4\/core\/to-json-schema\.js$/.test(id)) return null
    const named = ['createStandardJSONSchemaMethod', 'createToJSONSchemaMethod', 'extractDefs', 'finalize', 'initializeContext', 'processSchema']
    return named.map(name => `export const ${name} = () => undefined`).join('\n')
  },
}

export default defineNuxtConfig({
  // In development the builder asks for a server entry even where nothing is rendered on the server (nuxt 4.4.5): it is named, and never run.
  modules: ['@pinia/nuxt', '@primevue/nuxt-module', '@vite-pwa/nuxt'],
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
      link: [{ rel: 'icon', type: 'image/svg+xml', href: '/icon.svg' }, { rel: 'manifest', href: '/manifest.webmanifest' }],
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
  experimental: { payloadExtraction: false, appManifest: false, emitRouteChunkError: 'manual', renderJsonPayloads: false },
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
      // What starts the page without a network is asked for anew each time: a newer program is found by it.
      '/sw.js': { headers: { 'cache-control': 'no-cache' } },
      '/api/**': { headers: { 'cache-control': 'no-store', 'content-security-policy': `default-src 'none'; frame-ancestors 'none'` } },
    },
    typescript: { strict: true },
  },
  vite: {
    plugins: [noSchemaWriters],
    build: {
      reportCompressedSize: false,
      // The framework's ways of fetching come along with the rest of it though nothing calls them: 8 kB of every first page.
      rollupOptions: { treeshake: { moduleSideEffects: (id: string) => !/nuxt\/dist\/app\/composables\//.test(id) } },
    },
  },
  typescript: { strict: true },
  telemetry: false,
  hooks: {
    // Nothing here asks by the framework's fetch (app/api/client.ts does by the browser's): 5 kB of every first page.
    'app:templates': ({ templates }) => {
      const fetch = templates.find(t => t.filename === 'fetch.mjs')
      if (fetch) fetch.getContents = () => 'export {}'
    },
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
  // Starts with no network: all parts of the page are on the device after the first visit. Registered by app/composables/offline.ts, when the page stands.
  pwa: {
    registerType: 'prompt',
    injectRegister: false,
    client: { registerPlugin: false },
    manifest: {
      name: 'Plain Match', short_name: 'Plain Match', description: 'Matches loudspeakers to amplifiers, checks the wiring, finds the fault.', lang: 'en',
      start_url: '/', scope: '/', display: 'standalone', background_color: '#f6f1e8', theme_color: '#f6f1e8',
      icons: [
        { src: '/icon.svg', type: 'image/svg+xml', sizes: 'any' }, { src: '/icon-192.png', type: 'image/png', sizes: '192x192' },
        { src: '/icon-512.png', type: 'image/png', sizes: '512x512' }, { src: '/icon-maskable-512.png', type: 'image/png', sizes: '512x512', purpose: 'maskable' },
      ],
    },
    workbox: {
      globPatterns: ['**/*.{js,mjs,css,svg,png,woff2,wasm}'],
      // A PDF is read at a desk: its reader weighs more than all the rest.
      globIgnores: ['**/pdf*'],
      maximumFileSizeToCacheInBytes: 6_000_000,
      // The one page that all addresses are drawn from; its policy comes with it.
      additionalManifestEntries: [{ url: '/', revision: String(Date.now()) }],
      navigateFallback: '/',
      navigateFallbackDenylist: [/^\/api\//],
      clientsClaim: true,
      inlineWorkboxRuntime: true,
      // A photo is named by its hash: what was looked at once need not be fetched again.
      runtimeCaching: [{ urlPattern: /\/api\/photos\/[0-9a-f]{64}$/, handler: 'CacheFirst', options: { cacheName: 'photos', expiration: { maxEntries: 400 } } }],
    },
  },
})
