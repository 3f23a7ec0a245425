import { fileURLToPath } from 'node:url'
import { writeServiceWorker } from './scripts/lib/service-worker.mjs'

/** What does nothing by being loaded: what a page does not use of it can be left out. */
const moduleSideEffects = (id: string) => !/\/(core|words|nuxt\/dist\/app\/composables)\//.test(id)

export default defineNuxtConfig({
  compatibilityDate: '2026-01-01',
  telemetry: false,
  ssr: false,
  devtools: { enabled: false },
  srcDir: 'app/',
  serverDir: fileURLToPath(new URL('./server', import.meta.url)),
  modules: ['@pinia/nuxt'],
  css: ['~/styles/index.css'],
  imports: { autoImport: true },
  components: [{ path: '~/components', pathPrefix: false }],
  app: {
    head: {
      title: 'Field Thread',
      htmlAttrs: { lang: 'en' },
      meta: [
        { name: 'viewport', content: 'width=device-width, initial-scale=1' },
        { name: 'theme-color', content: '#FAF7F0' },
        { name: 'description', content: 'Expected ohms, verdicts and records for low-voltage irrigation wiring' },
      ],
      link: [
        { rel: 'icon', type: 'image/svg+xml', href: '/icon.svg' },
        { rel: 'manifest', href: '/manifest.webmanifest' },
      ],
    },
  },
  spaLoadingTemplate: false,
  features: { inlineStyles: false },
  hooks: {
    // Pages and dialogs come when they are asked for; fetching them ahead would double the first load.
    'build:manifest': (manifest) => {
      for (const entry of Object.values(manifest)) entry.prefetch = false
    },
    'nitro:build:public-assets': (nitro) => writeServiceWorker(nitro.options.output.publicDir),
  },
  nitro: {
    routeRules: {
      '/**': {
        headers: {
          // Pages say more (server/plugins/headers.ts); what is no page runs nothing at all.
          'content-security-policy': "default-src 'none'; frame-ancestors 'none'",
          'x-content-type-options': 'nosniff',
          'x-frame-options': 'DENY',
          'referrer-policy': 'same-origin',
          'cross-origin-opener-policy': 'same-origin',
          'cross-origin-resource-policy': 'same-origin',
          'permissions-policy': 'camera=(self), geolocation=(self), microphone=()',
        },
      },
      // A worker is bound by what its own script was sent with: it loads more of them, and computes in WebAssembly.
      '/service-worker.js': {
        headers: {
          'content-security-policy': "default-src 'self'; frame-ancestors 'none'",
          'cache-control': 'no-cache',
        },
      },
      '/_nuxt/**': {
        headers: {
          'content-security-policy':
            "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; connect-src 'self'; frame-ancestors 'none'",
        },
      },
    },
    compressPublicAssets: { gzip: true, brotli: true },
    ignore: ['**/*.test.ts'],
    typescript: { strict: true },
    experimental: { websocket: true },
    externals: { inline: ['zod'] },
  },
  typescript: {
    strict: true,
    tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true }, exclude: ['../app/**/*.test.ts'] },
  },
  vite: {
    build: { target: 'es2022', rollupOptions: { treeshake: { moduleSideEffects } } },
    worker: { format: 'es', rollupOptions: { treeshake: { moduleSideEffects } } },
    // Only the composition interface of the messages library is used; the rest stays out of the page.
    define: {
      __VUE_I18N_FULL_INSTALL__: false,
      __VUE_I18N_LEGACY_API__: false,
      __INTLIFY_PROD_DEVTOOLS__: false,
      __VUE_I18N_PROD_DEVTOOLS__: false,
      __INTLIFY_JIT_COMPILATION__: true,
      __INTLIFY_DROP_MESSAGE_COMPILER__: false,
    },
  },
})
