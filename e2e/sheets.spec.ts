import { expect, test, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { mm } from '../src/lib/core/measure/unit';
import { keep, markedPdf, tool, wordsOf } from '../tests/outside';
import {
  boxOf,
  field,
  go,
  makeOutput,
  newJob,
  pdf,
  pick,
  put,
  saved,
  slip,
  step,
  takeIn,
  tile,
} from './bench';
import { Folder } from './folder';

let folder: Folder;
test.beforeAll(async () => {
  folder = await Folder.start();
});
test.afterAll(() => folder.kill('SIGTERM'));

/** A job of so many marked pages, opened at Sheets, as another kind of scheme. */
async function jobAs(
  page: Page,
  kind: string,
  pages: number,
  size = { width: mm(148), height: mm(210) },
): Promise<void> {
  await newJob(page, folder.url);
  await takeIn(page, pdf('pages.pdf', await markedPdf(pages, { ...size, bleed: mm(3) })));
  await expect(step(page, 1)).toContainText('pages.pdf');
  await go(page, 'Sheets');
  await become(page, kind);
}
async function become(page: Page, kind: string): Promise<void> {
  await field(page, 'The pages become').selectOption(kind);
  await saved(page);
}
/** The positions of a side as it is shown, row by row from the head. */
async function shown(page: Page, side: string): Promise<string> {
  const cells = page.getByRole('option', { name: new RegExp(`^${side}: `) });
  await expect(cells.first()).toBeVisible();
  const names = await cells.evaluateAll((all) => all.map((cell) => cell.getAttribute('aria-label')!));
  return names
    .map((name) => /(?:page|blank) ([\d+]+)/.exec(name)![1]! + (name.includes('turned 180') ? '↓' : ''))
    .join(' ');
}
/** What was typed last is in place when its field is left. */
const use = async (page: Page) => {
  await page.keyboard.press('Tab');
  await saved(page);
};
/** The sheet PDF as it is handed over: the markers of each side, from head to foot and left to right. */
async function handedOver(page: Page): Promise<string[]> {
  await go(page, 'Hand over');
  const file = keep(await makeOutput(page, 'Make sheet PDF'));
  tool('qpdf', '--check', file);
  await go(page, 'Sheets');
  return wordsOf(file).map((side) =>
    side
      .filter(({ text }) => /^P\d+$/.test(text))
      .sort((a, b) => (Math.abs(a.y - b.y) > 20 ? b.y - a.y : a.x - b.x))
      .map(({ text }) => text.slice(1))
      .join(' '),
  );
}

test('a book in signatures, seen from both sides and held to the light, with its bleed and creep', async ({
  page,
}) => {
  await jobAs(page, 'book in signatures', 16);
  // The sheet of the booklet before it is too small: the mend names one that will do.
  await expect(slip(page)).toContainText('The sheet is too small');
  await page.getByRole('button', { name: /^Use (RA|SRA|A|B)\d/ }).click();
  await saved(page);
  await expect(slip(page)).not.toContainText('The sheet is too small');
  expect(await shown(page, 'Sheet 1, signature 1 front')).toBe('5↓ 12↓ 9↓ 8↓ 4 13 16 1');
  expect(await shown(page, 'Sheet 1, signature 1 back')).toBe('7↓ 10↓ 11↓ 6↓ 2 15 14 3');
  await page.getByRole('button', { name: 'Hold to the light' }).click();
  await expect(page.getByRole('option', { name: /^Sheet 1, signature 1 back/ })).toHaveCount(0);
  await expect(page.locator('.stage')).toContainText('each back seen through its front');
  await page.getByRole('button', { name: 'Hold to the light' }).click();
  // A click on a cell picks its page everywhere.
  await page.getByRole('option', { name: 'Sheet 1, signature 1 front: page 12, turned 180°' }).click();
  await expect(page.getByLabel('selected')).toHaveValue('12');
  await go(page, 'Pages');
  await expect(tile(page, 12)).toHaveAttribute('aria-selected', 'true');
  await go(page, 'Sheets');
  await slip(page).getByText('Creep', { exact: true }).click();
  await slip(page).getByText('moved in').click();
  await field(page, "A leaf's thickness").fill('0');
  await expect(slip(page)).toContainText('Paper is thicker than 0');
  await field(page, "A leaf's thickness").fill('0.1');
  await expect(slip(page).getByRole('img', { name: /Shift by leaf/ })).toBeVisible();
  await expect(slip(page)).toContainText('(4 − 1) × 0.1 mm = 0.3 mm');
  await use(page);
  expect(await handedOver(page)).toEqual(['5 12 9 8 4 13 16 1', '7 10 11 6 2 15 14 3']);
});

test('sides of sheets that are smaller than what lies on them do not lie over each other; the sums stay in sight', async ({
  page,
}) => {
  await jobAs(page, 'stitched booklet', 8);
  // What is typed stands in its field, whichever way the sheet lies meanwhile.
  const [width, height] = [field(page, 'Sheet width'), field(page, 'Sheet height')];
  await width.fill('120');
  await expect(width).toHaveValue('120');
  await expect(height).toHaveValue('320');
  await width.fill('220');
  await use(page);
  await height.fill('90');
  await use(page);
  const cells = page.getByRole('option', { name: /^Sheet \d+(, .*)? (front|back): / });
  await expect(cells).toHaveCount(8);
  const drawn = await cells.evaluateAll((all) =>
    all.map((cell) => {
      const { left, right, top, bottom } = cell.getBoundingClientRect();
      const side = cell.getAttribute('aria-label')!.split(':')[0]!;
      return { side, left, right, top, bottom };
    }),
  );
  const over = drawn.flatMap((one, n) =>
    drawn
      .slice(n + 1)
      .filter(
        (other) =>
          other.side !== one.side &&
          Math.min(one.right, other.right) - Math.max(one.left, other.left) > 1 &&
          Math.min(one.bottom, other.bottom) - Math.max(one.top, other.top) > 1,
      )
      .map(({ side }) => `${side} over ${one.side}`),
  );
  expect(over).toEqual([]);
  await expect(
    slip(page).getByRole('heading', { name: 'Working' }).or(slip(page).getByText('Working')).first(),
  ).toBeInViewport();
  await slip(page).evaluate((panel) => panel.scrollTo(0, 1e6));
  await expect(slip(page).getByText('Working').first()).toBeInViewport();
});

test('a leaflet: panels too wide are found and mended; the template says where it folds', async ({
  page,
}) => {
  await jobAs(page, 'folded leaflet', 6, { width: mm(99), height: mm(210) });
  await slip(page).getByText('one panel', { exact: true }).click();
  await field(page, 'Fold-in allowance').fill('3');
  await use(page);
  expect(await shown(page, 'Sheet 1 front')).toBe('1 2 3');
  expect(await shown(page, 'Sheet 1 back')).toBe('4 5 6');
  await expect(slip(page)).toContainText('Panel 1 has no room to fold in');
  await page.getByRole('button', { name: 'Use the widths the fold asks for' }).click();
  await saved(page);
  await expect(slip(page)).not.toContainText('has no room to fold in');
  await expect(slip(page)).toContainText('96 mm');
  expect(await handedOver(page)).toEqual(['1 2 3', '4 5 6']);
  await go(page, 'Hand over');
  await page.getByRole('button', { name: 'Blank template' }).click();
  await saved(page);
  await expect(page.getByRole('article').filter({ hasText: 'Make template PDF' })).toContainText(
    'folds at 96 mm, 195 mm',
  );
  const template = keep(await makeOutput(page, 'Make template PDF'));
  tool('qpdf', '--check', template);
  expect(tool('pdfinfo', template)).toMatch(/Pages:\s+2/);
});

test('flat work: piles that go on, all pieces on one sheet, a cut list; bad numbers are said in place', async ({
  page,
}) => {
  await jobAs(page, 'flat work', 12, { width: mm(85), height: mm(55) });
  await go(page, 'Pages');
  await go(page, 'Sheets');
  await slip(page).getByText('cut and stack', { exact: true }).click();
  await slip(page).locator('summary').getByText('Press', { exact: true }).click();
  await field(page, 'Printed').selectOption('one side only');
  await field(page, 'Copies across').fill('0');
  await expect(slip(page)).toContainText('A whole number from 1 to 100.');
  await field(page, 'Copies across').fill('100000');
  await expect(slip(page)).toContainText('A whole number from 1 to 100.');
  await field(page, 'Copies across').fill('2');
  await field(page, 'up').fill('1');
  await field(page, 'Between copies').fill('900');
  await expect(slip(page)).toContainText('Larger than the sheet');
  await field(page, 'Between copies').fill('6');
  await use(page);
  // Pages face each other, so a card is a leaf: six of them, three on each of two piles.
  expect(await shown(page, 'Sheet 1')).toBe('1 7');
  expect(await handedOver(page)).toEqual(['1 7', '3 9', '5 11']);
  await field(page, 'Sheet width').fill('60');
  await field(page, 'Sheet height').fill('40');
  // While it is typed, and once it is on the docket.
  await expect(slip(page)).toContainText('The sheet is too small');
  await use(page);
  await expect(slip(page)).toContainText('The sheet is too small');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(slip(page)).not.toContainText('The sheet is too small');
  await go(page, 'Hand over');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Cut list' }).click(),
  ]);
  expect(download.suggestedFilename()).toContain('cut list.csv');
});

test('reader spreads and single pages', async ({ page }) => {
  await jobAs(page, 'reader spreads', 5);
  expect(await shown(page, 'Sheet 2')).toBe('2 3');
  expect(await handedOver(page)).toEqual(['1', '2 3', '4 5']);
  await become(page, 'single pages with marks');
  expect(await handedOver(page)).toEqual(['1', '2', '3', '4', '5']);
});

test('a stitched booklet of larger sheets, two copies, work-and-turn: both sides are alike', async ({
  page,
}) => {
  await jobAs(page, 'stitched booklet', 16);
  await slip(page).getByText('8', { exact: true }).click();
  await field(page, 'Sheet').selectOption('SRA1');
  await slip(page).locator('summary').getByText('Press', { exact: true }).click();
  await field(page, 'Printed').selectOption('work-and-turn');
  await use(page);
  const [front, back] = [await shown(page, 'Sheet 1 front'), await shown(page, 'Sheet 1 back')];
  expect(front.split(' ')).toHaveLength(8);
  expect(back).toBe(front);
  const [one, other] = await handedOver(page);
  expect(other).toBe(one);
});

test('an accordion, a closed gatefold, and own folds: drawn on the sheet, kept, and there for the next job', async ({
  page,
}) => {
  await jobAs(page, 'folded leaflet', 2, { width: mm(297), height: mm(210) });
  await field(page, 'Sheet').selectOption('SRA3');
  await field(page, 'Folded as').selectOption('accordion fold');
  await field(page, 'Panels').fill('3');
  await use(page);
  await expect(slip(page).getByRole('row')).toHaveText([/99 mm/, /99 mm/, /99 mm/]);
  expect(await handedOver(page)).toEqual(['1', '2']);
  await field(page, 'Folded as').selectOption('closed gatefold');
  await use(page);
  await expect(slip(page).getByRole('row')).toHaveText([/73.25 mm/, /75.25 mm/, /75.25 mm/, /73.25 mm/]);
  expect(await handedOver(page)).toEqual(['1', '2']);

  await field(page, 'Folded as').selectOption('own folds');
  await page.getByRole('button', { name: 'begin flat' }).click();
  await page.getByRole('button', { name: 'upright folds' }).click();
  const sheet = await boxOf(page.locator('rect.over'));
  const foldAt = async (share: number) =>
    page.mouse.click(sheet.x + share * sheet.width, sheet.y + sheet.height / 2);
  await foldAt(197 / 297);
  await foldAt(97 / 297);
  await expect(slip(page).getByRole('row')).toHaveText([/97 mm/, /100 mm/, /100 mm/]);
  await expect(slip(page).getByRole('listitem')).toHaveCount(2);
  await slip(page).getByText('Kept folds').click();
  await slip(page).getByLabel('Name to keep it under').first().fill('Moor letter');
  await page.keyboard.press('Enter');
  await expect(slip(page).getByRole('button', { name: 'Moor letter', exact: true })).toBeVisible();
  await use(page);
  expect(await handedOver(page)).toEqual(['1', '2']);

  await jobAs(page, 'folded leaflet', 2, { width: mm(297), height: mm(210) });
  await field(page, 'Folded as').selectOption('own folds');
  await slip(page).getByText('Kept folds').click();
  await slip(page).getByRole('button', { name: 'Moor letter', exact: true }).click();
  await expect(slip(page).getByRole('row')).toHaveText([/97 mm/, /100 mm/, /100 mm/]);
});

test('all pieces on one sheet, as often as each is wanted, on a paper that is kept', async ({ page }) => {
  await jobAs(page, 'flat work', 4, { width: mm(85), height: mm(55) });
  await go(page, 'Pages');
  await pick(page, '1-2');
  await page.keyboard.press('p');
  await field(page, 'Piece').fill('Card');
  await field(page, 'How many wanted').fill('300');
  await put(page);
  await go(page, 'Sheets');
  await field(page, 'Sheet').selectOption('SRA3');
  await slip(page).getByText('gang all', { exact: true }).click();
  await slip(page).locator('summary').getByText('Paper', { exact: true }).click();
  await field(page, 'Grammage').fill('300');
  await slip(page).getByText('Kept papers').click();
  await slip(page).getByLabel('Name to keep it under').fill('Card stock');
  await slip(page).getByRole('button', { name: 'Keep this one' }).click();
  await expect(slip(page).getByRole('button', { name: 'Card stock', exact: true })).toBeVisible();
  await use(page);
  const front = (await shown(page, 'Sheet 1 front')).split(' ');
  expect(front.length).toBeGreaterThan(4);
  expect(new Set(front)).toEqual(new Set(['1', '3']));
  // 300 of the one and 1 of the other: the one is there as often as the rest of the sheet allows.
  expect(front.filter((cell) => cell === '3')).toHaveLength(1);
  const [one, back] = (await handedOver(page)).map((side) => side.split(' ').toSorted());
  expect(one).toEqual(front.toSorted());
  expect(back).toEqual(front.map((cell) => String(Number(cell) + 1)).toSorted());
  await expect(field(page, 'Sheet')).toHaveValue('kept:Card stock');
  // Which sheet? Picking one uses it; the kept one is ranked among them, and is taken back whole.
  await slip(page).getByText('Which sheet?').click();
  const ranked = slip(page).getByRole('button', { name: /^(SRA2|Card stock) \d+ \d+ %$/ });
  await expect(ranked).toHaveCount(2);
  await ranked.filter({ hasText: 'SRA2' }).click();
  await expect(field(page, 'Sheet')).toHaveValue('SRA2');
  await ranked.filter({ hasText: 'Card stock' }).click();
  await expect(field(page, 'Sheet')).toHaveValue('kept:Card stock');
});

test('the cover of a bound book has a sheet of its own, and its spine follows from the leaves', async ({
  page,
}) => {
  await jobAs(page, 'book in signatures', 34);
  await go(page, 'Pages');
  await pick(page, '1, last');
  await page.keyboard.press('Shift+C');
  await expect(field(page, 'page 1')).toHaveValue('front');
  await field(page, 'page 34').selectOption('front');
  await expect(slip(page).getByRole('alert')).toContainText('The cover would have its front twice');
  await field(page, 'page 34').selectOption('back');
  await put(page);
  await expect(page.locator('footer')).toContainText('32 pages');
  await go(page, 'Sheets');
  await expect(slip(page)).toContainText('How thick is the book?');
  await field(page, 'Sheet').selectOption('SRA1');
  await slip(page).locator('summary').getByText('Paper', { exact: true }).last().click();
  await field(page, 'Thickness of a leaf').last().fill('0.25');
  await field(page, 'On the spine').fill('Moorland');
  await use(page);
  await expect(slip(page)).not.toContainText('How thick is the book?');
  await expect(slip(page)).toContainText('16 leaves × 0.25 = 4 mm');
  await expect(slip(page)).toContainText('The text is too large for the spine');
  const cells = page.getByRole('option', { name: /^Sheet 3, cover: / });
  await page.getByRole('listbox', { name: 'Sheets' }).focus();
  await page.keyboard.press('9');
  await expect(cells).toHaveCount(3);
  const sides = await handedOver(page);
  expect(sides.at(-1)).toBe('34 1');
  expect(sides).toHaveLength(5);
  await go(page, 'Hand over');
  await expect(page.getByRole('article').first()).toContainText('3 sheets · 5 sides');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Sheets as XJDF' }).click(),
  ]);
  const xjdf = readFileSync(await download.path(), 'utf8');
  expect(xjdf.match(/<PlacedObject/g)).toHaveLength(34);
});

test('cells are turned, swapped and left out by hand, and what the folded piece shows is said', async ({
  page,
}) => {
  await jobAs(page, 'stitched booklet', 8);
  const cell = (name: string) => page.getByRole('option', { name, exact: true });
  await cell('Sheet 1 front: page 8').click();
  await slip(page).getByRole('button', { name: 'Swap' }).click();
  await cell('Sheet 1 back: page 2').click();
  await saved(page);
  expect(await shown(page, 'Sheet 1 front')).toBe('2 1');
  await expect(slip(page)).toContainText(
    'Folded, the piece shows page 2 where 8 belongs, page 8 where 2 belongs.',
  );
  // Held back until somebody says why it goes all the same.
  await go(page, 'Hand over');
  await page.getByRole('button', { name: 'Make sheet PDF' }).click();
  await expect(page.getByText('2 of 8 pages came out wrong')).toBeVisible();
  expect((await handedOver(page)).slice(0, 2)).toEqual(['2 1', '8 7']);
  // The menu at a cell offers the same as the slip.
  await cell('Sheet 1 front: page 1').click({ button: 'right' });
  await expect(page.getByRole('menu').getByRole('menuitem')).toHaveText(['Turn', 'Swap', 'Leave out']);
  await page.getByRole('menuitem', { name: 'Leave out' }).click();
  await saved(page);
  expect((await handedOver(page))[0]).toBe('2');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(cell('Sheet 1 front: page 1')).toBeVisible();
  await page.getByRole('button', { name: 'Take back change 1' }).click();
  await saved(page);
  expect(await shown(page, 'Sheet 1 front')).toBe('8 1');
  // Turned over as by hand: one sheet after the other shows its back.
  await page.getByRole('button', { name: 'Turn over' }).click();
  expect(await shown(page, 'Sheet 1 back')).toBe('2 7');
  await expect(page.getByRole('option', { name: /^Sheet 1 front/ })).toHaveCount(0);
  await page.keyboard.press('o');
  expect(await shown(page, 'Sheet 1 front')).toBe('8 1');
});

test('sheets are proved by folding: cells swapped by hand are named, put back, and the proof holds', async ({
  page,
}) => {
  await jobAs(page, 'stitched booklet', 8);
  await page.getByRole('option', { name: 'Sheet 1 front: page 8', exact: true }).click();
  await slip(page).getByRole('button', { name: 'Swap' }).click();
  await page.getByRole('option', { name: 'Sheet 1 back: page 2', exact: true }).click();
  await saved(page);
  await go(page, 'Hand over');
  await page.getByRole('button', { name: 'Proof', exact: true }).click();
  const prove = async () => {
    const why = page.getByLabel('Goes out all the same');
    if (await why.isVisible()) await why.fill('To be proved.');
    await page.getByRole('button', { name: 'Prove it' }).click();
  };
  await prove();
  await expect(page.getByText('fails: 2 of 8 pages not as intended', { exact: true })).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: /proof\.pdf$/ }).click(),
  ]);
  const report = tool('pdftotext', '-raw', await download.path(), '-');
  expect(report).toContain('Page 2 (sheet 1, back): page 8 is met in its place.');
  expect(report).toContain('Page 8 (sheet 1, front): page 2 is met in its place.');
  // A wrong page leads to its cell: both pages are selected there.
  await page
    .getByRole('listitem')
    .filter({ hasText: 'Page 2 (sheet 1, back)' })
    .last()
    .getByRole('link', { name: 'Show on Sheets' })
    .click();
  for (const name of ['Sheet 1 back: page 8', 'Sheet 1 front: page 2'])
    await expect(page.getByRole('option', { name, exact: true })).toHaveAttribute('aria-selected', 'true');
  await page.getByRole('button', { name: 'Take back change 1' }).click();
  await saved(page);
  await go(page, 'Hand over');
  await expect(page.getByText('out of date: the job has changed since')).toBeVisible();
  await prove();
  await expect(page.getByText('holds: 8 pages as intended', { exact: true })).toBeVisible();
});
