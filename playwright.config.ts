import { defineConfig } from '@playwright/test';
import { CHROMIUM } from './tests/chromium';

export default defineConfig({
  testDir: 'e2e',
  outputDir: '.folder/e2e',
  workers: 1,
  timeout: 90_000,
  expect: { timeout: 15_000 },
  reporter: [['list'], ['json']],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: CHROMIUM,
  },
});
