/**
 * A size change tried on all 1,000 pages of a job, in Chromium: the longest task of the main thread in a recorded trace,
 * and how many pages are drawn. Run by hand against a running Folder: npm run bench:size -- http://127.0.0.1:3000
 */
import { chromium } from '@playwright/test';
import { CHROMIUM } from '../tests/chromium';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';

const url = process.argv[2] ?? 'http://127.0.0.1:3000';
const PAGES = 1000;
/** The longest that the page may stand still, in milliseconds. */
const MOST_MS = 100;

const document = await PDFDocument.create();
const font = await document.embedFont(StandardFonts.Helvetica);
for (let n = 1; n <= PAGES; n++) {
  const page = document.addPage([420, 595]);
  page.drawText(`Page ${n}`, { x: 60, y: 500, size: 30, font });
}
const buffer = Buffer.from(await document.save({ useObjectStreams: false }));

const browser = await chromium.launch(CHROMIUM);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await page.goto(url);
await page
  .getByRole('button', { name: /New job|Start the first job/ })
  .first()
  .click();
await page
  .locator('.slip input[type=file]')
  .setInputFiles([{ name: 'thousand.pdf', mimeType: 'application/pdf', buffer }]);
await page.getByRole('complementary', { name: 'Docket' }).locator('li').first().waitFor({ timeout: 120_000 });
await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Pages' }).click();
await page.getByRole('option').first().waitFor();
// The machine has to be quiet: all measured, all drawn.
const job = /jobs\/([0-9a-f-]+)/.exec(page.url())![1];
for (let busy = true; busy; await page.waitForTimeout(1000))
  busy =
    ((await (await fetch(`${url}/api/jobs/${job}/status`)).json()) as { measuring: string[] }).measuring
      .length > 0;
await page.waitForTimeout(12_000);
await page.getByRole('listbox', { name: 'Pages' }).focus();
await page.keyboard.press('Control+a');
await page.keyboard.press('s');
await page.getByLabel('Width', { exact: true }).waitFor();
await page.waitForTimeout(2000);

const session = await page.context().newCDPSession(page);
interface TraceEvent {
  name: string;
  ph: string;
  dur?: number;
  /** Microseconds in which the thread itself worked: what other programs took of the machine is left out. */
  tdur?: number;
  tid: number;
  ts: number;
  args?: { name?: string };
}
const events: TraceEvent[] = [];
session.on('Tracing.dataCollected', ({ value }) => void events.push(...(value as unknown as TraceEvent[])));
await session.send('Tracing.start', {
  transferMode: 'ReportEvents',
  traceConfig: { includedCategories: ['toplevel', 'devtools.timeline', '__metadata'] },
});
for (const width of ['150', '160', '170', '120', '140,5']) {
  await page.getByLabel('Width', { exact: true }).pressSequentially(width, { delay: 60 });
  await page.waitForTimeout(400);
  await page.getByLabel('Width', { exact: true }).press('Control+a');
}
const done = new Promise((end) => session.once('Tracing.tracingComplete', end));
await session.send('Tracing.end');
await done;
const main = events.find(({ name, args }) => name === 'thread_name' && args?.name === 'CrRendererMain')?.tid;
const tasks = events.filter(({ name, ph, tid }) => ph === 'X' && tid === main && /RunTask$/.test(name));
const longest = Math.max(0, ...tasks.map(({ dur = 0, tdur = dur }) => tdur / 1000));
const longestByClock = Math.max(0, ...tasks.map(({ dur = 0 }) => dur / 1000));
/** What the longest task was made of, by the trace's own names. */
const worst = tasks.reduce((a, b) => ((b.tdur ?? b.dur ?? 0) > (a.tdur ?? a.dur ?? 0) ? b : a));
const parts = new Map<string, number>();
for (const { name, ph, tid, ts, dur = 0, tdur = dur } of events)
  if (ph === 'X' && tid === main && name !== worst.name && ts >= worst.ts && ts < worst.ts + (worst.dur ?? 0))
    parts.set(name, (parts.get(name) ?? 0) + tdur / 1000);
const made = [...parts].filter(([, ms]) => ms >= 5).map(([name, ms]) => `${name} ${ms.toFixed(0)}`);
const drawn = await page.getByRole('option').count();
console.log(
  `${PAGES} pages: longest task ${longest.toFixed(0)} ms of ${tasks.length} (${longestByClock.toFixed(0)} ms by the clock), ${(longest / MOST_MS).toFixed(2)} of what is allowed; ${drawn} pages drawn, ${(drawn / PAGES).toFixed(2)} of all`,
);
console.log(`The longest task, in ms, parts within parts: ${made.join(', ')}`);
await browser.close();
process.exitCode = longest > MOST_MS ? 1 : 0;
