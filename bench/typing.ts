/**
 * How long the tab stands still while a size is typed for all of 2,000 pages: the longest task of the main thread (Long Tasks
 * API), median of five. Run by hand, after `npm run build`: npm run bench:typing
 */
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { Folder } from '../e2e/folder';
import { jobOf } from '../e2e/bench';
import { CHROMIUM } from '../tests/chromium';
import { useOwnDatabase } from '../scripts/ownDatabase';
import { median, textFile } from './files';

const PAGES = 2000;
const ROUNDS = 5;
/** The longest that a key may wait for the tab. */
const MOST_MS = 200;
process.env.FOLDER_CLUSTER = 'test-postgres';
const stop = await useOwnDatabase();
const folder = await Folder.start();
const browser = await chromium.launch(CHROMIUM);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await page.addInitScript(() => {
  const tasks: number[] = [];
  new PerformanceObserver((list) => tasks.push(...list.getEntries().map(({ duration }) => duration))).observe(
    {
      type: 'longtask',
    },
  );
  Object.assign(window, { tasks });
});
const place = mkdtempSync(join(tmpdir(), 'folder-bench-'));
await jobOf(page, folder.url, readFileSync(await textFile(PAGES, place)));
rmSync(place, { recursive: true });
await page.waitForTimeout(6000);
const longest: number[] = [];
for (let round = 0; round < ROUNDS; round++) {
  await page.keyboard.press('Control+a');
  await page.keyboard.press('s');
  const width = page.getByLabel('Width', { exact: true });
  await width.fill('');
  await page.evaluate('tasks.length = 0');
  await width.pressSequentially('147.5', { delay: 200 });
  await page.waitForTimeout(1500);
  longest.push(Number(await page.evaluate('Math.max(0, ...tasks)')));
  await page.keyboard.press('Escape');
  await page.waitForTimeout(500);
}
console.log(
  `typing a size for ${PAGES} pages: the longest task ${median(longest)} ms, of ${longest.join(', ')}; ${MOST_MS} is allowed`,
);
await browser.close();
await folder.kill();
stop();
process.exit(median(longest) > MOST_MS ? 1 : 0);
