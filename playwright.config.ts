import { defineConfig } from '@playwright/test';
import { CHROMIUM } from './tests/chromium';

export default defineConfig({
  testDir: 'e2e',
  outputDir: '.folder/e2e',
  // Two at once, and by itself what stops and starves a Folder, whose answers are timed.
  workers: 2,
  projects: [
    // What waits for two browsers and two Folders on two cores is tried once more; the run says which were.
    { name: 'bench', testIgnore: 'trust.spec.ts', retries: 1 },
    { name: 'trust', testMatch: 'trust.spec.ts', dependencies: ['bench'] },
  ],
  timeout: 400_000,
  expect: { timeout: 60_000 },
  reporter: [['list'], ['json']],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: CHROMIUM,
  },
});
