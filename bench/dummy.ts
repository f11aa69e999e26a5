import { PDFDocument } from '@cantoo/pdf-lib';
import { chromium, type Page } from '@playwright/test';
import { go, jobOf, saved, field } from '../e2e/bench';
import { Folder } from '../e2e/folder';
import { CHROMIUM } from '../tests/chromium';

/*
 * The dummy of a book of 500 pages in Chromium: how long until its first state is drawn, and the longest that the tab stood still
 * while its leaves were turned and it was turned by hand; beside how long a plain loop takes here, to know the machine by. After
 * npm run build.
 */

const PAGES = 500;
const doc = await PDFDocument.create();
for (let n = 1; n <= PAGES; n++) {
  const page = doc.addPage([420, 595]);
  page.drawText(`${n}`, { x: 60, y: 300, size: 60 });
  for (let line = 0; line < 30; line++)
    page.drawText(`Line ${line} of page ${n}, as a page of text has them`, {
      x: 40,
      y: 560 - line * 8,
      size: 7,
    });
}

const { startPostgres } = (await import('../scripts/lib/postgres.mjs' as string)) as {
  startPostgres: (name: string) => Promise<{ url: string }>;
};
const { url: server } = await startPostgres('test-postgres');
const folder = await Folder.start({ server });
const browser = await chromium.launch(CHROMIUM);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });

/** The longest tasks of the tab since it was asked last, in ms. */
async function longest(of: Page): Promise<number> {
  return of.evaluate(() => {
    const seen = (globalThis as unknown as { tasks: number[] }).tasks;
    return Math.round(Math.max(0, ...seen.splice(0)));
  });
}

try {
  await jobOf(page, folder.url, await doc.save());
  await go(page, 'Sheets');
  await field(page, 'The pages become').selectOption('book in signatures');
  await saved(page);
  await page.evaluate(() => {
    const tasks: number[] = [];
    Object.assign(globalThis, { tasks });
    new PerformanceObserver((list) =>
      tasks.push(...list.getEntries().map(({ duration }) => duration)),
    ).observe({
      type: 'longtask',
    });
  });
  const loop = await page.evaluate(() => {
    const from = performance.now();
    let sum = 0;
    for (let n = 0; n < 2e8; n++) sum += n;
    return [performance.now() - from, sum][0]!;
  });
  await longest(page);
  const from = performance.now();
  await go(page, 'Dummy');
  await page.getByRole('list', { name: 'In sight' }).locator('li').first().waitFor({ state: 'attached' });
  const first = performance.now() - from;
  const begun = await longest(page);
  await page.keyboard.press('End');
  await page.waitForTimeout(3000);
  await longest(page);
  for (let n = 0; n < 6; n++) {
    await page.keyboard.press('ArrowRight');
    await page.waitForTimeout(1500);
  }
  const leaves = await longest(page);
  const box = (await page.locator('canvas').boundingBox())!;
  await page.mouse.move(box.x + 300, box.y + 300);
  await page.mouse.down();
  for (let n = 0; n < 40; n++) {
    await page.mouse.move(box.x + 300 + n * 5, box.y + 300 + n);
    await page.waitForTimeout(20);
  }
  await page.mouse.up();
  await page.waitForTimeout(500);
  const byHand = await longest(page);
  console.log(`a loop of 2·10⁸ additions: ${Math.round(loop)} ms`);
  console.log(
    `${PAGES} pages: first state drawn after ${Math.round(first)} ms, ${(first / loop).toFixed(2)} × the loop`,
  );
  console.log(
    `longest task: ${begun} ms while it began, ${leaves} ms while leaves turned, ${byHand} ms turned by hand`,
  );
} finally {
  await browser.close();
  folder.kill('SIGKILL');
}
process.exit(0);
