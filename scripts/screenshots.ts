/** Takes the pictures of docs/screenshots anew, from the demo: npm run screenshots, after npm run build. */
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { go, pick, slip } from '../e2e/bench';
import { Folder } from '../e2e/folder';
import { CHROMIUM } from '../tests/chromium';
import { startPostgres } from './lib/postgres.mjs';

const OUT = join(import.meta.dirname, '..', 'docs', 'screenshots');
const { url: server } = await startPostgres('test-postgres');
const folder = await Folder.start({ demo: true, server });
const browser = await chromium.launch(CHROMIUM);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
page.setDefaultTimeout(8000);

/** Brings a view about and takes its picture; pages are drawn by and by, so what is taken is what stands still. */
async function take(name: string, view: () => Promise<void>): Promise<void> {
  try {
    await view();
    await page.waitForTimeout(2500);
    await page.screenshot({ path: join(OUT, `${name}.png`) });
  } catch (error) {
    console.error(`${name}: ${String(error).split('\n')[0]}`);
    process.exitCode = 1;
  }
}
async function open(job: string, stage?: Parameters<typeof go>[1]): Promise<void> {
  await page.goto(folder.url);
  await page.getByRole('link', { name: `Open ${job}`, exact: true }).click();
  if (stage) await go(page, stage);
}
const field = (label: string) => slip(page).getByLabel(label, { exact: true });
/** Makes an output of the job that is open, with a reason where findings say stop. */
async function make(button: string): Promise<void> {
  const why = page.getByLabel('Goes out all the same');
  if (await why.isVisible()) await why.fill('The blanks are added at the press.');
  await page.getByRole('button', { name: button }).click();
  await page.locator('article', { hasText: button }).locator('a.file').waitFor({ timeout: 60_000 });
}
/** What has the name of a folded part of the slip opens it. */
const unfold = (title: string) => slip(page).locator('summary', { hasText: title }).first().click();

await page.goto(folder.url, { timeout: 60_000 });
await take('jobs', async () => void (await page.goto(folder.url)));
await take('take-in', () => open('Season timetable', 'Take in'));
await take('pages', async () => {
  await open('Season timetable', 'Pages');
  await page.locator('article', { hasText: 'The pairs' }).getByRole('button').first().hover();
});
await take('crop', async () => {
  await open('Season timetable', 'Pages');
  await pick(page, '3');
  await page.keyboard.press('c');
  for (const edge of ['Head', 'Foot', 'Spine', 'Fore edge']) await field(edge).fill('12');
});
await take('formats', async () => {
  await open('Season timetable', 'Pages');
  await pick(page, '8');
  await unfold('Formats');
  await slip(page)
    .getByRole('button', { name: /^New from page/ })
    .click();
  await field('Name').fill('Body');
  await page.getByRole('button', { name: 'Keep format' }).click();
  await slip(page).getByRole('button', { name: 'apply to selected' }).click();
});
await take('sheets', () => open('Season timetable', 'Sheets'));
await take('dummy', async () => {
  await open('Footplate handbook', 'Dummy');
  await page.keyboard.press('End');
  await page.waitForTimeout(1500);
  for (let n = 0; n < 2; n++) {
    await page.keyboard.press('ArrowRight');
    await page.waitForTimeout(4500);
  }
});
await take('hand-over', async () => {
  await open('Season timetable', 'Hand over');
  await make('Make sheet PDF');
  await make('Make reading-order PDF');
  const output = page.locator('article', { hasText: 'Make reading-order PDF' });
  await output.getByRole('button', { name: 'Settings' }).click();
  await field('Split').selectOption('every');
});
await take('received', async () => {
  await open('Season timetable', 'Hand over');
  await page.getByRole('button', { name: 'Press stand-in', exact: true }).click();
  await field('The press prints each sheet').selectOption('long-edge');
  await page.getByRole('button', { name: /Add output|Change output/ }).click();
  await make('Send to press');
  await page.getByRole('link', { name: 'What it received' }).click();
});
await take('compare', async () => {
  await open('Open weekend gate folder', 'Pages');
  await pick(page, '1, 3');
  await slip(page).getByText('beside', { exact: true }).click();
});
await take('fold-outs', () => open('Line guide with fold-out map', 'Pages'));
await take('numbers', async () => {
  await open('Footplate handbook', 'Numbers');
  await pick(page, '66');
  await slip(page)
    .getByRole('button', { name: /pages not/ })
    .click();
});
await take('inks', async () => {
  await open('Platform tickets', 'Numbers');
  await unfold('Inks');
  await slip(page).getByRole('button', { name: /^Hide/ }).first().click();
});
await take('pieces', async () => {
  await open('Station stationery', 'Pages');
  await pick(page, '4');
  await page.keyboard.press('a');
});
await take('flat', () => open('Station stationery', 'Sheets'));
await take('leaflet', async () => {
  await open('Gala day leaflet', 'Sheets');
  await field('Folded as').selectOption('letter');
});
await take('reading-order', async () => {
  await open('Rule book 1931', 'Pages');
  await page.keyboard.press('r');
  await page.getByRole('button', { name: 'Work it out' }).click();
});
await take('recipes', async () => {
  await page.goto(`${folder.url}/recipes`);
  await page.getByText('Scanner (a simulated stand-in)').click();
  await page.getByRole('button', { name: 'Scan one now' }).click();
  await page.getByText('1 done').first().waitFor({ timeout: 90_000 });
});
await take('work', async () => void (await page.goto(`${folder.url}/work`)));

await browser.close();
await folder.kill();
process.exit();
