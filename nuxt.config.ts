import { fileURLToPath } from 'node:url'

export default defineNuxtConfig({
  compatibilityDate: '2026-01-01',
  telemetry: false,
  ssr: false,
  devtools: { enabled: false },
  srcDir: 'app/',
  serverDir: fileURLToPath(new URL('./server', import.meta.url)),
  modules: ['@pinia/nuxt', '@primevue/nuxt-module'],
  primevue: {
    loadStyles: false,
    autoImport: false,
    options: { unstyled: true },
    components: { include: ['Dialog', 'Select'] },
    directives: { include: [] },
    composables: { include: [] },
  },
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
      link: [{ rel: 'icon', type: 'image/svg+xml', href: '/icon.svg' }],
    },
  },
  spaLoadingTemplate: false,
  features: { inlineStyles: false },
  nitro: {
    compressPublicAssets: { gzip: true, brotli: true },
    ignore: ['**/*.test.ts'],
    typescript: { strict: true },
    externals: { inline: ['zod'] },
  },
  typescript: { strict: true, tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true } } },
  vite: { build: { target: 'es2022' } },
})
