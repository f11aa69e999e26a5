import { expect, test, type Page } from '@playwright/test';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { markedPdf, wordsOf } from '../tests/outside';
import {
  boxOf,
  field,
  go,
  jobOf,
  newJob,
  pdf,
  pick,
  put,
  saved,
  slip,
  step,
  takeIn,
  tile,
  written,
} from './bench';
import { Folder } from './folder';

let folder: Folder;
test.beforeAll(async () => {
  folder = await Folder.start();
});
test.afterAll(() => folder.kill('SIGTERM'));

const A5 = { width: 420, height: 595 };
/** The markers that poppler reads on each page of the reading-order PDF. */
const markersOf = (path: string, marker = /^P\d+$/) =>
  wordsOf(path).map((words) =>
    words
      .filter(({ text }) => marker.test(text))
      .sort((a, b) => a.x - b.x)
      .map(({ text }) => text.slice(1))
      .join(' '),
  );
const choose = (page: Page, text: string) => slip(page).getByText(text, { exact: true }).click();
async function carry(page: Page, from: number, to: number, share: number, key?: 'Shift'): Promise<void> {
  const [a, b] = [await boxOf(tile(page, from)), await boxOf(tile(page, to))];
  await page.mouse.move(a.x + a.width / 2, a.y + a.height / 3);
  await page.mouse.down();
  await page.mouse.move(a.x + a.width / 2 + 12, a.y + a.height / 3 + 12, { steps: 3 });
  if (key) await page.keyboard.down(key);
  await page.mouse.move(b.x + b.width * share, b.y + b.height / 3, { steps: 6 });
  await expect(page.locator('.landing')).toBeVisible();
  await page.mouse.up();
  if (key) await page.keyboard.up(key);
}

test('pages are added, copied, taken out, moved by typing, by mouse and by keys, and found by number', async ({
  page,
}) => {
  await jobOf(page, folder.url, await markedPdf(8, A5));
  // Two blanks before page 3, by keyboard.
  await pick(page, '3');
  await page.keyboard.press('n');
  await field(page, 'How many').fill('2');
  await choose(page, 'Before');
  await page.keyboard.press('Enter');
  await expect(step(page, 2)).toContainText('before page 3');
  await expect(tile(page, 3)).toHaveAccessibleName(/blank/);
  await expect(tile(page, 10)).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(tile(page, 9)).toHaveCount(0);
  // Pages of another file, some of them, at a place.
  await go(page, 'Take in');
  await takeIn(page, pdf('insert.pdf', await markedPdf(4, { ...A5, prefix: 'X' })));
  await expect(step(page, 2)).toContainText('insert.pdf');
  await go(page, 'Pages');
  await step(page, 2).getByRole('button').first().click();
  await slip(page).getByLabel('Its pages').fill('2-3');
  await choose(page, 'After');
  await slip(page).getByLabel('After page').fill('1');
  await put(page);
  // Page 4 to the place after page 6, with the mouse; then on by keys, still one step.
  await carry(page, 4, 6, 0.8);
  await expect(step(page, 3)).toContainText('before page 7');
  await expect(page.getByLabel('selected')).toHaveValue('6');
  await page.keyboard.press('Alt+ArrowRight');
  await expect(page.getByLabel('selected')).toHaveValue('7');
  await page.keyboard.press('Alt+End');
  await expect(page.getByLabel('selected')).toHaveValue('10');
  await saved(page);
  await expect(step(page, 4)).toHaveCount(0);
  // Two at once, by mouse, to before the first page.
  await pick(page, '5-6');
  await carry(page, 5, 1, 0.1);
  await expect(step(page, 4)).toContainText('before page');
  await expect(page.getByLabel('selected')).toHaveValue('1, 2');
  await saved(page);
  await pick(page, '3');
  await page.keyboard.press('Delete');
  await page.keyboard.press('Enter');
  await saved(page);
  await pick(page, 'last');
  await page.keyboard.press('y');
  await choose(page, 'Start');
  await page.keyboard.press('Enter');
  await saved(page);
  // 1 X2 X3 2 … 8: 2 goes behind 8, then 5 and 6 (now at 5, 6: 4 and 5) to the front, then 1 is taken out and 2 copied to the start.
  expect(markersOf(await written(page), /^X?P\d+$/)).toEqual([
    '2',
    '4',
    '5',
    'P2',
    'P3',
    '3',
    '6',
    '7',
    '8',
    '2',
  ]);
});

test('single and facing pages, the first page’s side, and the spine at the left, right and head', async ({
  page,
}) => {
  await jobOf(page, folder.url, await markedPdf(4, A5));
  await expect(tile(page, 1)).toHaveAccessibleName(/right-hand/);
  await slip(page)
    .getByText(/^Facing pages, first/)
    .click();
  await slip(page).getByRole('group', { name: 'First page lies' }).getByText('left').click();
  await expect(tile(page, 1)).toHaveAccessibleName(/left-hand/);
  await slip(page).getByRole('group', { name: 'First page lies' }).getByText('right').click();
  await slip(page).getByRole('group', { name: 'Spine at the' }).getByText('right').click();
  await expect(tile(page, 1)).toHaveAccessibleName(/left-hand/);
  await slip(page).getByRole('group', { name: 'Spine at the' }).getByText('head').click();
  await expect(tile(page, 1)).toHaveAccessibleName(/lower page/);
  await pick(page, 'upper');
  await expect(page.locator('footer')).toContainText('2 of 4 pages');
  await go(page, 'Sheets');
  await expect(page.getByRole('option', { name: 'Sheet 1 front: page 4' })).toBeVisible();
  await expect(slip(page)).toContainText('all 4 pages in order');
  await go(page, 'Pages');
  await slip(page)
    .getByText(/^Facing pages, first/)
    .click();
  await slip(page).getByRole('group', { name: 'Leaves' }).getByText('loose pages').click();
  await expect(page.getByText('Loose pages, spine at the head')).toBeVisible();
  await saved(page);
});

test('a kept pair: the step that parts it says so, and a blank mends it; blanks that a sheet wants can go to two places', async ({
  page,
}) => {
  await jobOf(page, folder.url, await markedPdf(7, A5));
  await pick(page, '4');
  await page.keyboard.press('k');
  await page.keyboard.press('Enter');
  await expect(step(page, 2)).toContainText('Keep');
  await expect(tile(page, 5).getByText('kept')).toBeVisible();
  await pick(page, '1');
  await page.keyboard.press('n');
  await choose(page, 'Start');
  await expect(slip(page)).toContainText('A kept pair has come apart');
  await put(page);
  const finding = slip(page).getByRole('article').filter({ hasText: 'A kept pair has come apart' });
  await finding.getByRole('button', { name: 'Edit the step' }).click();
  await expect(slip(page)).toContainText('step 3 of the docket');
  await page.keyboard.press('Escape');
  await finding.getByRole('button', { name: 'Put one blank before it' }).click();
  await expect(finding).toHaveCount(0);
  // That blank says that it is meant to be one.
  await step(page, 4).getByRole('button').first().click();
  await choose(page, 'words');
  await expect(field(page, 'Words in the middle')).toHaveValue('This page intentionally left blank');
  await field(page, 'Words in the middle').fill('日本');
  await expect(slip(page).getByRole('alert')).toContainText('letters of western Europe');
  await field(page, 'Words in the middle').fill('Left blank');
  await put(page);
  await expect(tile(page, 5).getByText('Left blank')).toBeVisible();
  await saved(page);
  await go(page, 'Sheets');
  await expect(slip(page)).toContainText('3 blanks fill the last sheet');
  await expect(slip(page).getByRole('button', { name: '3 blanks before the last page' })).toBeVisible();
  await slip(page).getByRole('button', { name: '3 blanks at the end' }).click();
  await expect(step(page, 5)).toContainText('3 pages');
  await saved(page);
});

test('fold-outs: worked out, dropped on a leaf, folded in, given back; longer sheets', async ({ page }) => {
  await jobOf(page, folder.url, await markedPdf(8, A5));
  await pick(page, '1');
  await page.keyboard.press('l');
  await expect(slip(page)).toContainText('148.167 mm, the leaf that it folds over');
  await expect(slip(page)).toContainText('= 146.167 mm');
  await choose(page, 'pages of the list');
  await slip(page).getByLabel('Front and back in turn').fill('5-6');
  await put(page);
  await expect(page.getByRole('option', { name: /^Page 1\+1 front, right-hand/ })).toBeVisible();
  // Two pages dropped on the other leaf.
  await pick(page, '5-6');
  await carry(page, 5, 3, 0.9, 'Shift');
  await expect(slip(page).getByRole('heading', { name: 'Fold-out panel' })).toBeVisible();
  await choose(page, 'typed');
  await field(page, 'Width of each').fill('200');
  await expect(slip(page)).toContainText('A panel too wide to fold in');
  await expect(slip(page)).toContainText('Two panels would meet');
  await choose(page, 'worked out');
  await put(page);
  await pick(page, '3+1 back');
  await expect(page.locator('footer')).toContainText('panel 3+1 back');
  await expect(page.locator('footer')).toContainText('label “3b”');
  await slip(page).getByText('on from the last').click();
  await expect(page.locator('footer')).toContainText('label “8”');
  await slip(page).getByRole('button', { name: 'fold it in' }).last().click();
  await expect(page.getByRole('option', { name: /^Page 3\+1 back, right-hand, .*folded in/ })).toBeVisible();
  await go(page, 'Sheets');
  await field(page, 'Sheet width').fill('640');
  await field(page, 'Sheet height').fill('900');
  await page.keyboard.press('Enter');
  await saved(page);
  const sheet = await written(page, 'Make sheet PDF');
  expect(markersOf(sheet)).toEqual(['8 4 1 5', '6 2 3 7']);
  expect(markersOf(await written(page))).toEqual(['1', '5', '6', '2', '3', '7', '8', '4']);
  await go(page, 'Pages');
  await pick(page, '3+1');
  await page.keyboard.press('b');
  await put(page);
  await pick(page, '6');
  await expect(page.locator('footer')).toContainText('6 of 6');
  await pick(page, '1');
  await page.keyboard.press('l');
  await choose(page, 'pages of the list');
  await slip(page).getByLabel('Front and back in turn').fill('2');
  await expect(slip(page).getByRole('alert')).toContainText('Page 2 belongs to the leaf itself');
  await page.keyboard.press('Escape');
});

test('pages are split and joined', async ({ page }) => {
  await jobOf(page, folder.url, await markedPdf(4, A5));
  await page.getByRole('listbox', { name: 'Pages' }).focus();
  await page.keyboard.press('j');
  await expect(slip(page)).toContainText('4 ÷ 2 = 2 pages');
  await put(page);
  await expect(tile(page, 3)).toHaveCount(0);
  expect(markersOf(await written(page))).toEqual(['1 2', '3 4']);
  await go(page, 'Pages');
  await pick(page, '2');
  await page.keyboard.press('x');
  await choose(page, 'at a place');
  await field(page, 'From the left').fill('900');
  await expect(slip(page).getByRole('alert')).toContainText('The cut lies inside the page');
  await expect(page.getByRole('button', { name: 'Apply', exact: true })).toBeDisabled();
  await field(page, 'From the left').fill('420pt');
  await put(page);
  expect(markersOf(await written(page))).toEqual(['1 2', '3', '4']);
});

/** Raw scans of a stitched 8-page booklet: two numbered pages a side, the third scan upside down. */
async function bookletScans(): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  const font = await document.embedFont(StandardFonts.Helvetica);
  const sides = [
    [8, 1],
    [2, 7],
    [6, 3],
    [4, 5],
  ] as const;
  for (const [n, side] of sides.entries()) {
    const page = document.addPage([840, 595]);
    side.forEach((number, half) => {
      const at = { x: 210 + half * 420, y: 30 };
      const over = n === 2;
      const put = (text: string, y: number) =>
        page.drawText(
          text,
          over
            ? { x: 840 - at.x, y: 595 - y, size: 12, font, rotate: { type: 'degrees', angle: 180 } as never }
            : { x: at.x, y, size: 12, font },
        );
      put(String(number), at.y);
      put(`P${number}`, 300);
    });
  }
  return document.save();
}

test('scans go back to reading order: worked out, by choice, by an own list; what cannot be is said', async ({
  page,
}) => {
  await jobOf(page, folder.url, await bookletScans());
  await page.getByRole('listbox', { name: 'Pages' }).focus();
  await page.keyboard.press('r');
  await slip(page).getByRole('button', { name: 'Work it out' }).click();
  await expect(slip(page).getByRole('status')).toContainText('8 agree');
  await slip(page).getByText('Scans that lie turned').click();
  await expect(slip(page).getByLabel('Turn 180°')).toHaveValue('3');
  await expect(slip(page).getByRole('row', { name: /^3 / })).toContainText('6 · 3');
  await expect(tile(page, 8)).toBeVisible();
  await put(page);
  expect(markersOf(await written(page))).toEqual(['1', '2', '3', '4', '5', '6', '7', '8']);
  await go(page, 'Pages');
  await step(page, 2).getByRole('button').first().click();
  await choose(page, 'own list');
  await slip(page).getByLabel('Parts in reading order').fill('1-3, 3, 5-8');
  await expect(slip(page).getByRole('alert')).toContainText('Part 3 is in the list twice');
  await slip(page).getByLabel('Parts in reading order').fill('8-1');
  await expect(page.getByRole('button', { name: 'Change step' })).toBeEnabled();
  await slip(page).getByLabel('Pages', { exact: true }).fill('1-3');
  await choose(page, 'stitched');
  await expect(slip(page).getByRole('alert')).toContainText('3 scans cannot be whole sheets');
  await page.keyboard.press('Escape');
  await expect(tile(page, 8)).toBeVisible();
});

test('sheets made here, taken in again, give the pages back', async ({ page }) => {
  await jobOf(page, folder.url, await markedPdf(12, A5));
  const sheet = await written(page, 'Make sheet PDF');
  const { readFileSync } = await import('node:fs');
  await jobOf(page, folder.url, readFileSync(sheet));
  await page.getByRole('listbox', { name: 'Pages' }).focus();
  await page.keyboard.press('r');
  await put(page);
  expect(markersOf(await written(page))).toEqual(Array.from({ length: 12 }, (_, n) => `${n + 1}`));
});

test('pictures are taken in as pages at their resolution, or one asked for; a damaged one is refused', async ({
  page,
}) => {
  const png = await sharp({ create: { width: 600, height: 300, channels: 3, background: '#fff' } })
    .withMetadata({ density: 150 })
    .png()
    .toBuffer();
  await newJob(page, folder.url);
  await takeIn(page, { name: 'scan.png', buffer: png, mimeType: 'image/png' } as never);
  await expect(step(page, 1)).toContainText('scan.png');
  await expect(slip(page)).toContainText('101.6 × 50.8 mm');
  await go(page, 'Pages');
  await step(page, 1).getByRole('button').first().click();
  await slip(page).getByLabel('Pixels an inch').fill('300');
  await put(page);
  await pick(page, '1');
  await expect(page.locator('footer')).toContainText('50.8 × 25.4 mm');
  await go(page, 'Take in');
  await takeIn(page, { name: 'cut.png', buffer: png.subarray(0, 60), mimeType: 'image/png' } as never);
  await expect(page.getByText('This picture is damaged')).toBeVisible();
});
