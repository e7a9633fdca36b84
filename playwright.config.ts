import { defineConfig } from '@playwright/test';

/** One application for each lane of tests, with a database of its own; a lane takes one file after the other. */
const lanes = (process.env['BASE_URL'] ?? 'http://127.0.0.1:4730').split(' ');

export default defineConfig({
  testDir: 'e2e',
  timeout: 120_000,
  expect: { timeout: 15_000 },
  workers: lanes.length,
  fullyParallel: false,
  reporter: [['list'], ['json', { outputFile: '.lantern/playwright.json' }]],
  outputDir: '.lantern/playwright',
  use: {
    baseURL: lanes[Number(process.env['TEST_PARALLEL_INDEX'] ?? 0)]!,
    viewport: { width: 1280, height: 800 },
    // A bench is dim.
    colorScheme: 'dark',
    browserName: 'chromium',
    launchOptions: {
      executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium',
      // As root Chromium's sandbox cannot be used; the pages are our own, on loopback.
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        // A page of a test lives for seconds: what is compiled for long runs comes too late, and takes a core.
        '--js-flags=--no-turbofan',
      ],
    },
  },
});
