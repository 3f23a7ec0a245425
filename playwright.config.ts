import { defineConfig } from '@playwright/test'

/** Against the server and the database that scripts/test.mjs has started; Debian's Chromium, no browser of its own. */
export default defineConfig({
  testDir: 'e2e',
  outputDir: 'test-results/browser',
  workers: 1,
  // Long enough for a busy machine: what hangs still ends, and what passes is not slower for it.
  timeout: 300_000,
  expect: { timeout: 30_000 },
  reporter: [['list'], ['json']],
  use: {
    baseURL: process.env.BASE_URL,
    browserName: 'chromium',
    viewport: { width: 1280, height: 800 },
    // Every test has a browser of its own; what the service worker does is looked at in e2e/offline.spec.ts.
    serviceWorkers: 'block',
    locale: 'en-GB',
    timezoneId: 'UTC',
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
})
