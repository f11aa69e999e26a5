/**
 * Long jobs in Chromium, each act in a recorded trace: a size tried on all of 1,000 pages, and the size of their folios; pages
 * of 2,000 moved, that taken back, and the list scrolled. Says the longest task of the main thread, and how many pages are
 * drawn; and how much longer 20,000 pages take than 10,000 to come onto the mat. Run by hand against a running Folder:
 * npm run bench:long -- http://127.0.0.1:3000
 */
import { chromium, type CDPSession, type Page } from '@playwright/test';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import { CHROMIUM } from '../tests/chromium';

const url = process.argv[2] ?? 'http://127.0.0.1:3000';
/** The longest that the page may stand still, in milliseconds. */
const MOST_MS = 100;

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

async function longPdf(pages: number): Promise<Buffer> {
  const document = await PDFDocument.create();
  const font = await document.embedFont(StandardFonts.Helvetica);
  for (let n = 1; n <= pages; n++)
    document.addPage([420, 595]).drawText(`Page ${n}`, { x: 60, y: 500, size: 30, font });
  return Buffer.from(await document.save({ useObjectStreams: false }));
}

/** Makes a job of so many pages and goes to Pages; the job's id. */
async function takenIn(page: Page, pages: number): Promise<string> {
  await page.goto(url);
  await page
    .getByRole('button', { name: /New job|Start the first job/ })
    .first()
    .click();
  await page
    .locator('.slip input[type=file]')
    .setInputFiles([{ name: 'long.pdf', mimeType: 'application/pdf', buffer: await longPdf(pages) }]);
  await page
    .getByRole('complementary', { name: 'Docket' })
    .locator('li')
    .first()
    .waitFor({ timeout: 120_000 });
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Pages' }).click();
  await page.getByRole('option').first().waitFor();
  return /jobs\/([0-9a-f-]+)/.exec(page.url())![1]!;
}

/** Opens a job of so many pages on Pages, and waits until all are measured and drawn, so that the machine is quiet. */
async function openJob(page: Page, pages: number): Promise<void> {
  const job = await takenIn(page, pages);
  for (let busy = true; busy; await page.waitForTimeout(1000)) {
    const status = (await (await fetch(`${url}/api/jobs/${job}/status`)).json()) as { measuring: unknown[] };
    busy = status.measuring.length > 0;
  }
  await page.waitForTimeout(12_000);
}

const msOf = ({ dur = 0, tdur = dur }: TraceEvent): number => tdur / 1000;

/** Records a trace while `act` runs: what the main thread did, and its tasks. */
async function traced(
  session: CDPSession,
  act: () => Promise<void>,
): Promise<{ onMain: TraceEvent[]; tasks: TraceEvent[] }> {
  const events: TraceEvent[] = [];
  const collect = ({ value }: { value: unknown }) => void events.push(...(value as TraceEvent[]));
  session.on('Tracing.dataCollected', collect as never);
  await session.send('Tracing.start', {
    transferMode: 'ReportEvents',
    traceConfig: { includedCategories: ['toplevel', 'devtools.timeline', '__metadata'] },
  });
  await act();
  const done = new Promise((end) => session.once('Tracing.tracingComplete', end));
  await session.send('Tracing.end');
  await done;
  session.off('Tracing.dataCollected', collect as never);
  const main = events.find(
    ({ name, args }) => name === 'thread_name' && args?.name === 'CrRendererMain',
  )?.tid;
  const onMain = events.filter(({ ph, tid }) => ph === 'X' && tid === main);
  return { onMain, tasks: onMain.filter(({ name }) => /RunTask$/.test(name)) };
}

/** Says the longest task while `act` runs. */
async function measure(
  page: Page,
  session: CDPSession,
  what: string,
  pages: number,
  act: () => Promise<void>,
): Promise<void> {
  const { onMain, tasks } = await traced(session, act);
  const worst = tasks.reduce((a, b) => (msOf(b) > msOf(a) ? b : a));
  const clock = Math.max(...tasks.map(({ dur = 0 }) => dur / 1000));
  const parts = new Map<string, number>();
  for (const event of onMain)
    if (event.name !== worst.name && event.ts >= worst.ts && event.ts < worst.ts + (worst.dur ?? 0))
      parts.set(event.name, (parts.get(event.name) ?? 0) + msOf(event));
  const made = [...parts].filter(([, ms]) => ms >= 5).map(([name, ms]) => `${name} ${ms.toFixed(0)}`);
  const drawn = await page.getByRole('option').count();
  console.log(
    `${what}, ${pages} pages: longest task ${msOf(worst).toFixed(0)} ms of ${tasks.length} (${clock.toFixed(0)} ms by the clock), ${(msOf(worst) / MOST_MS).toFixed(2)} of what is allowed; ${drawn} pages drawn, ${(drawn / pages).toFixed(2)} of all\n  parts within parts, ms: ${made.join(', ')}`,
  );
  if (msOf(worst) > MOST_MS) process.exitCode = 1;
}

const browser = await chromium.launch(CHROMIUM);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const session = await page.context().newCDPSession(page);
const mat = page.getByRole('listbox', { name: 'Pages' });

await openJob(page, 1000);
await mat.focus();
await page.keyboard.press('Control+a');
await page.keyboard.press('s');
const width = page.getByLabel('Width', { exact: true });
await width.waitFor();
await page.waitForTimeout(2000);
await measure(page, session, 'A size tried', 1000, async () => {
  for (const size of ['150', '160', '170', '120', '140,5']) {
    await width.pressSequentially(size, { delay: 60 });
    await page.waitForTimeout(400);
    await width.press('Control+a');
  }
});

await page.keyboard.press('Escape');
await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Numbers' }).click();
await page.getByRole('listbox', { name: 'Facing pages' }).focus();
await page.keyboard.press('Escape');
await page.keyboard.press('i');
const letters = page.getByLabel('Size', { exact: true });
await letters.waitFor();
await page.waitForTimeout(3000);
await measure(page, session, "The folios' size tried", 1000, async () => {
  for (const size of ['10', '12', '8,5', '14', '9']) {
    await letters.press('Control+a');
    await letters.pressSequentially(size, { delay: 60 });
    await page.waitForTimeout(400);
  }
});

await openJob(page, 2000);
await page.getByLabel('selected').fill('5-20');
await mat.focus();
await page.waitForTimeout(1000);
await measure(page, session, 'Pages moved', 2000, async () => {
  for (const key of ['Alt+ArrowRight', 'Alt+ArrowRight', 'Alt+End', 'Alt+Home']) {
    await page.keyboard.press(key);
    await page.waitForTimeout(700);
  }
});
await measure(page, session, 'Taken back and done again', 2000, async () => {
  for (const key of ['Control+z', 'Control+z', 'Control+Shift+z', 'Control+z']) {
    await page.keyboard.press(key);
    await page.waitForTimeout(700);
  }
});
await page.mouse.move(600, 400);
await measure(page, session, 'Scrolled', 2000, async () => {
  for (let n = 0; n < 60; n++) {
    await page.mouse.wheel(0, n < 40 ? 160 : -220);
    await page.waitForTimeout(30);
  }
});

/** How long the main thread works until the mat shows pages, and until it was scrolled to its end. */
async function onTheMat(pages: number): Promise<number> {
  await takenIn(page, pages);
  const stage = (name: string) =>
    page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name });
  await stage('Sheets').click();
  await page.waitForTimeout(3000);
  const { tasks } = await traced(session, async () => {
    await stage('Pages').click();
    await page.getByRole('option').first().waitFor();
    await mat.focus();
    await page.keyboard.press('End');
    await page.getByRole('option', { name: `Page ${pages}, ` }).waitFor();
    await page.waitForTimeout(2000);
  });
  return tasks.reduce((sum, task) => sum + msOf(task), 0);
}
const [half, whole] = [await onTheMat(10_000), await onTheMat(20_000)];
console.log(
  `On the mat and to its end: ${half.toFixed(0)} ms of the main thread with 10,000 pages, ${whole.toFixed(0)} ms with 20,000, ${(whole / half).toFixed(2)} × (2.1 at most)`,
);
if (whole > 2.1 * half) process.exitCode = 1;
await browser.close();
