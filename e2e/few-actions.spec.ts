import { expect, test, type Locator, type Page } from '@playwright/test';
import { keep, markedPdf, tool } from '../tests/outside';
import { boxOf, field, go, jobOf, newJob, pdf, saved, slip, step, takeIn, tile } from './bench';
import { Folder } from './folder';

let folder: Folder;
test.beforeAll(async () => {
  folder = await Folder.start();
});
test.afterAll(() => folder.kill('SIGTERM'));

const A5 = { width: 420, height: 595 };
/** Does things as a preparer does, and counts them: a click, a key, a figure typed, a choice, a file dropped is one each. */
class Hand {
  count = 0;
  constructor(private readonly page: Page) {}
  private async do(act: Promise<unknown>): Promise<void> {
    this.count++;
    await act;
  }
  click = (at: Locator) => this.do(at.click());
  rightClick = (at: Locator, position?: { x: number; y: number }) =>
    this.do(at.click({ button: 'right', ...(position && { position }) }));
  press = (key: string) => this.do(this.page.keyboard.press(key));
  type = (into: Locator, text: string) => this.do(into.fill(text));
  choose = (from: Locator, what: string) => this.do(from.selectOption(what));
  drop = (...files: Parameters<typeof takeIn>[1][]) => this.do(takeIn(this.page, ...files));
}
const mat = (page: Page) => page.getByRole('listbox', { name: 'Pages' });

test('a booklet from its file to the sheet PDF: four', async ({ page }) => {
  await newJob(page, folder.url);
  const hand = new Hand(page);
  await hand.drop(pdf('booklet.pdf', await markedPdf(8, A5)));
  await expect(step(page, 1)).toContainText('booklet.pdf');
  await hand.click(page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Hand over' }));
  await hand.click(page.getByRole('button', { name: 'Make sheet PDF' }));
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    hand.click(page.locator('a.file').first()),
  ]);
  tool('qpdf', '--check', (await download.path())!);
  expect(hand.count).toBeLessThanOrEqual(4);
});

test('one size for the whole document: three; a crop of all of it: two', async ({ page }) => {
  await jobOf(page, folder.url, await markedPdf(6, A5));
  await mat(page).focus();
  let hand = new Hand(page);
  await hand.press('s');
  await hand.choose(slip(page).getByLabel('Named size'), 'named:A4');
  await hand.press('Enter');
  await expect(step(page, 2)).toContainText('A4');
  await expect(tile(page, 6)).toHaveAccessibleName(/A4/);
  expect(hand.count).toBeLessThanOrEqual(3);
  await mat(page).focus();
  const { width, height } = await boxOf(mat(page));
  // Beside the pages the menu is for all of them; where their ink lies is known a moment after they came.
  const beside = { x: width / 2, y: height - 60 };
  const crop = page.getByRole('menuitem', { name: 'Crop to the ink' });
  await expect(async () => {
    await page.keyboard.press('Escape');
    await mat(page).click({ button: 'right', position: beside });
    await expect(crop).toBeEnabled({ timeout: 500 });
  }).toPass();
  await page.keyboard.press('Escape');
  hand = new Hand(page);
  await hand.rightClick(mat(page), beside);
  await hand.click(crop);
  await expect(step(page, 3)).toContainText('to the ink');
  await expect(step(page, 3)).toContainText('all pages');
  expect(hand.count).toBe(2);
});

test('the cover turned upside down: two', async ({ page }) => {
  await jobOf(page, folder.url, await markedPdf(6, A5));
  const hand = new Hand(page);
  await hand.rightClick(tile(page, 1));
  await hand.click(page.getByRole('menuitem', { name: 'Turn 180°' }));
  await expect(step(page, 2)).toContainText('page 1');
  await expect(step(page, 2)).toContainText('180°');
  expect(hand.count).toBe(2);
});

test('a report that counts – – i ii 1 2: eight', async ({ page }) => {
  await jobOf(page, folder.url, await markedPdf(12, A5));
  await mat(page).focus();
  const hand = new Hand(page);
  await hand.press('#');
  await hand.type(slip(page).getByLabel('Series 1 begins at page'), '3');
  await hand.choose(slip(page).getByLabel('Style of series 1'), 'r');
  await hand.click(slip(page).getByRole('button', { name: 'Another series' }));
  await hand.type(slip(page).getByLabel('Series 2 begins at page'), '5');
  await hand.press('Enter');
  await saved(page);
  expect(hand.count).toBeLessThanOrEqual(8);
  await go(page, 'Hand over');
  await page.getByRole('button', { name: 'Make reading-order PDF' }).click();
  const made = page.locator('a.file').first();
  await expect(made).toBeVisible();
  const [download] = await Promise.all([page.waitForEvent('download'), made.click()]);
  const labels = tool(
    'mutool',
    'show',
    keep(await download.createReadStream().then(bytesOf)),
    'trailer/Root/PageLabels',
  );
  expect(labels.replace(/\s+/g, ' ')).toMatch(/Nums \[ 0 .* 2 << .*\/S \/r.* 4 << .*\/S \/D/);
});

test('a sheet that folds as a letter: one', async ({ page }) => {
  await jobOf(page, folder.url, await markedPdf(2, { width: 842, height: 595 }));
  await go(page, 'Sheets');
  const hand = new Hand(page);
  await hand.choose(field(page, 'The pages become'), 'leaflet');
  await expect(field(page, 'Folded as')).toHaveValue('letter');
  await expect(page.getByRole('option', { name: /^Sheet 1 front/ }).first()).toBeVisible();
  await saved(page);
  expect(hand.count).toBe(1);
});

test('a die line on fifty tickets: three', async ({ page }) => {
  await newJob(page, folder.url);
  await takeIn(page, pdf('tickets.pdf', await markedPdf(50, { width: 240, height: 120 })));
  await takeIn(page, pdf('die line.pdf', await markedPdf(1, { width: 240, height: 120 })));
  await expect(step(page, 2)).toContainText('die line.pdf');
  await go(page, 'Numbers');
  await page.getByRole('listbox').first().focus();
  const hand = new Hand(page);
  await hand.press('Z');
  await expect(slip(page).getByRole('button', { name: 'Apply', exact: true })).toBeEnabled();
  await hand.press('Enter');
  await expect(step(page, 3)).toContainText('Overlay the last page on all pages');
  await expect(page.locator('footer')).toContainText('50 pages');
  expect(hand.count).toBeLessThanOrEqual(3);
});

test('the whole way by keyboard alone, and the focus is never lost', async ({ page }) => {
  await page.goto(folder.url);
  let keys = 0;
  /** What has the focus after a key; never the page itself, where the next key would mean nothing. */
  const press = async (key: string): Promise<void> => {
    keys++;
    await page.keyboard.press(key);
    await expect
      .poll(() => page.evaluate(() => document.activeElement !== document.body), {
        message: `after key ${keys}, ${key}`,
      })
      .toBe(true);
  };
  const begin = page.getByRole('button', { name: /New job|Start the first job/ }).first();
  const to = async (at: Locator): Promise<void> => {
    for (let n = 0; n < 15 && !(await at.evaluate((each) => each === document.activeElement)); n++)
      await press('Tab');
  };
  await to(begin);
  keys = 0;
  await press('Enter');
  await expect(page.getByRole('heading', { name: 'Drop PDFs or scans here' })).toBeVisible();
  await takeIn(page, pdf('booklet.pdf', await markedPdf(8, A5)));
  await expect(step(page, 1)).toContainText('booklet.pdf');
  await press('Alt+2');
  await expect(tile(page, 1)).toBeVisible();
  await press('Control+a');
  await press('e');
  await expect(field(page, 'All round')).toBeVisible();
  await to(field(page, 'All round'));
  await page.keyboard.type('3');
  await press('Enter');
  await expect(step(page, 2)).toContainText('3 mm all round');
  await press('Alt+3');
  await press('i');
  await expect(slip(page).getByRole('heading', { name: /Folios/ })).toBeVisible();
  await press('Enter');
  await expect(step(page, 3)).toContainText('Folios');
  await press('Alt+4');
  await press('l');
  await expect(page.locator('.stage')).toContainText('each back seen through its front');
  await press('Alt+6');
  const make = page.getByRole('button', { name: 'Make sheet PDF' });
  await expect(make).toBeVisible();
  await to(make);
  await press('Enter');
  await expect(page.locator('a.file').first()).toBeVisible();
  await press('Control+z');
  await press('Escape');
  expect(keys).toBeLessThanOrEqual(28);
});

async function bytesOf(stream: AsyncIterable<Buffer>): Promise<Buffer> {
  const parts: Buffer[] = [];
  for await (const part of stream) parts.push(part);
  return Buffer.concat(parts);
}
