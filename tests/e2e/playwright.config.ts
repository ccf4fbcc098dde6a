// End-to-end tests: the real interface in Debian's Chromium, against a program of their own.
import { defineConfig } from '@playwright/test'
import { chromiumArguments, chromiumPath } from '../support/chromium'

export default defineConfig({
  testDir: '.',
  outputDir: '../../test-results/e2e',
  workers: 2,
  fullyParallel: false,
  // What passes only the second time is a fault to look into.
  retries: 0,
  timeout: 480_000,
  // Only what hangs takes so long, on however busy a machine.
  expect: { timeout: 120_000 },
  reporter: [['list'], ['json', { outputFile: '../../test-results/e2e.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: { executablePath: chromiumPath, args: chromiumArguments },
    trace: 'off',
    screenshot: 'off',
  },
})
