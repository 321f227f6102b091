import { defineConfig } from '@playwright/test'

export default defineConfig({
  testDir: '.',
  testMatch: '*.test.ts',
  // Tests wait for states; these only end what hangs, also where fifty other programs share two cores.
  timeout: 240_000,
  expect: { timeout: 30_000 },
  workers: 2,
  // On a machine where others run too; what needed it is counted and shown, not hidden.
  retries: 1,
  forbidOnly: true,
  reporter: [['line'], ['json', { outputFile: process.env.REPORT ?? 'test-results/report.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
})
