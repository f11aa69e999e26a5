import { expect, test, type Page } from '@playwright/test';
import { PDFDocument, rgb, StandardFonts } from '@cantoo/pdf-lib';
import { mm } from '../src/lib/core/measure/unit';
import { boxesOf, keep, markedPdf, tool, wordsOf } from '../tests/outside';
import {
  boxOf,
  field,
  go,
  jobOf as startJob,
  newJob,
  pick,
  put,
  saved,
  slip,
  step,
  tile,
  written,
} from './bench';
import { Folder } from './folder';

let folder: Folder;
test.beforeAll(async () => {
  folder = await Folder.start();
});
test.afterAll(() => folder.kill('SIGTERM'));

const A5 = { width: mm(148), height: mm(210) };
const jobOf = (page: Page, bytes: Uint8Array) => startJob(page, folder.url, bytes);
const sizeOf = ([x0, y0, x1, y1]: number[]) => [x1! - x0!, y1! - y0!];
const expectSize = (box: number[] | undefined, width: number, height: number) =>
  [width, height].forEach((side, i) => expect(Math.abs(sizeOf(box!)[i]! - side)).toBeLessThan(0.011));

test('sizes: named, kept under an own name for all jobs, used last, in pixels, like another page; pulled at on the mat', async ({
  page,
}) => {
  await jobOf(page, await markedPdf(4, A5));
  await pick(page, '3');
  await page.keyboard.press('s');
  await field(page, 'Width').fill('120');
  await field(page, 'Height').fill('120');
  await expect(slip(page)).toContainText('1 of 4 pages change size');
  await expect(slip(page)).toContainText('A leaf with two sizes');
  await slip(page).getByRole('button', { name: 'name this size' }).click();
  await slip(page)
    .getByLabel(/^Name for/)
    .fill('A5');
  await page.keyboard.press('Enter');
  await expect(slip(page)).toContainText('name of a standard size');
  await slip(page)
    .getByLabel(/^Name for/)
    .fill('Beer mat');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Named size')).toHaveValue('own:Beer mat');
  // A mend taken while the step is tried puts both on the docket.
  await slip(page).getByRole('button', { name: 'Size its back like its front' }).click();
  await expect(step(page, 2)).toContainText('page 3');
  await expect(step(page, 3)).toContainText('page 4');
  await saved(page);

  // Another job knows it; what was used last comes first.
  await jobOf(page, await markedPdf(3, A5));
  await pick(page, 'all');
  await page.keyboard.press('s');
  await expect(page.getByLabel('Named size').locator('optgroup').first()).toHaveAttribute(
    'label',
    'used last',
  );
  await page.getByLabel('Named size').selectOption('own:Beer mat');
  await expect(field(page, 'Width')).toHaveValue('120');
  await page.getByLabel('Named size').selectOption('screen:1920 × 1080 px');
  await slip(page).getByLabel('px an inch').fill('300');
  await expect(field(page, 'Width')).toHaveValue('162.56');
  await field(page, 'Width').fill('600px');
  await slip(page).getByText('Fit', { exact: true }).click();
  await expect(slip(page)).toContainText('content at 34.32 %');
  await slip(page).getByRole('button', { name: 'Swap width and height' }).click();
  await slip(page).getByLabel('like page').fill('1');
  await expect(field(page, 'Width')).toHaveValue('148');
  await field(page, 'Height').press('ArrowUp');
  await field(page, 'Height').press('Shift+ArrowUp');
  await expect(field(page, 'Height')).toHaveValue('221');
  // The corner pulled outwards grows both sides, the spine and the head staying put.
  const corner = await boxOf(page.locator('[data-grip="1,1"]'));
  await page.mouse.move(corner.x + corner.width / 2, corner.y + corner.height / 2);
  await page.mouse.down();
  await page.mouse.move(corner.x + 50, corner.y + 60, { steps: 6 });
  await page.mouse.up();
  await expect.poll(async () => Number(await field(page, 'Width').inputValue())).toBeGreaterThan(155);
  await expect(slip(page)).toContainText('head, spine');
  await put(page);
  await expect(step(page, 2)).toContainText('all pages');
});

test('crop: typed, drawn, pulled, moved by keys, to the ink, filled and brought back', async ({ page }) => {
  const size = { width: 420, height: 600 };
  await jobOf(page, await markedPdf(4, size));
  await pick(page, 'all');
  await page.keyboard.press('c');
  for (const [edge, value] of [
    ['Head', '20pt'],
    ['Foot', '10pt'],
    ['Spine', '40pt'],
    ['Fore edge', '30pt'],
  ] as const)
    await field(page, edge).fill(value);
  await expect(slip(page)).toContainText('4 of 4 pages change size');
  await field(page, 'Head').fill('700pt');
  await expect(slip(page).getByRole('alert')).toContainText('Nothing of page 1 would be left');
  await expect(page.getByRole('button', { name: 'Apply', exact: true })).toBeDisabled();
  await field(page, 'Head').fill('20pt');
  // Left and right mirror: the arrow moves the crop, and with it both edges.
  await page.getByRole('listbox', { name: 'Pages' }).focus();
  await page.keyboard.press('ArrowRight');
  await expect(field(page, 'Spine')).toHaveValue('15.111');
  await expect(field(page, 'Fore edge')).toHaveValue('9.583');
  await page.keyboard.press('ArrowLeft');
  await put(page);
  await expect(step(page, 2)).toContainText('off head 7.056, foot 3.528, spine 14.111, fore edge 10.583 mm');

  await pick(page, '2');
  await page.keyboard.press('c');
  const box = await boxOf(tile(page, 2).locator('rect').first());
  await page.mouse.move(box.x + box.width * 0.3, box.y + box.height * 0.25);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.7, box.y + box.height * 0.6, { steps: 8 });
  await page.mouse.up();
  await expect.poll(async () => Number(await field(page, 'Head').inputValue())).toBeGreaterThan(20);
  const drawnHead = Number(await field(page, 'Head').inputValue());
  const grip = await boxOf(page.locator('[data-grip="0,-1"]'));
  await page.mouse.move(grip.x + 4, grip.y + 4);
  await page.mouse.down();
  await page.mouse.move(grip.x + 4, grip.y - 16, { steps: 5 });
  await page.mouse.up();
  expect(Number(await field(page, 'Head').inputValue())).toBeLessThan(drawnHead);
  await page.keyboard.press('Escape');

  // Crop and then fill: exactly 420/350 = 1.2 across, and the height follows.
  await pick(page, 'all');
  await page.keyboard.press('s');
  await field(page, 'Width').fill('420pt');
  await field(page, 'Height').fill('600pt');
  await slip(page).getByText('Fill', { exact: true }).click();
  await expect(slip(page)).toContainText('content at 120 %');
  await put(page);
  const path = await written(page);
  boxesOf(path).forEach(({ TrimBox }) => expectSize(TrimBox, 420, 600));
  // By arithmetic: the middle of the crop goes to the middle of the page, 1.2 times as large.
  const [before, after] = [wordsOf(keep(await markedPdf(4, size))), wordsOf(path)];
  const at = (words: typeof before, index: number) =>
    words[index]!.find(({ text }) => text === `P${index + 1}`)!;
  [0, 1].forEach((index) => {
    const left = index === 0 ? 40 : 30;
    expect(at(after, index).x).toBeCloseTo(210 + 1.2 * (at(before, index).x - (left + 175)), 1);
    expect(at(after, index).y).toBeCloseTo(300 + 1.2 * (at(before, index).y - (10 + 285)), 1);
  });

  await go(page, 'Pages');
  await pick(page, '1');
  await page.keyboard.press('u');
  await put(page);
  await expect(step(page, 4)).toContainText('Uncrop');
  await tile(page, 1).click();
  await expect(slip(page)).toContainText('177.8 × 254 mm');
  await pick(page, '3');
  await page.keyboard.press('c');
  await slip(page).getByText('to the ink').click();
  await expect(slip(page).getByRole('alert')).toBeHidden();
  await field(page, 'Left round the ink').fill('2');
  await expect(slip(page)).toContainText('1 of 4 pages change size');
  await put(page);
  await expect(step(page, 5)).toContainText('to the ink, 2 mm round it');
});

test('mixed sizes made even, and only what does not stand yet is turned', async ({ page }) => {
  const document = await PDFDocument.load(await markedPdf(6, A5));
  document.getPage(2).setSize(A5.width, A5.height + 12);
  document.getPage(4).setSize(A5.height, A5.width);
  await jobOf(page, await document.save({ useObjectStreams: false }));
  await go(page, 'Take in');
  await expect(slip(page)).toContainText('page 3');
  await expect(slip(page)).toContainText('A5 landscape, 210 × 148 mm');
  await go(page, 'Pages');
  await pick(page, '5');
  await page.keyboard.press('t');
  await slip(page).getByText('not portrait', { exact: true }).click();
  await put(page);
  await expect(step(page, 2)).toContainText('90° to the right, where not portrait');
  await page.keyboard.press('Escape');
  await page.keyboard.press('o');
  await expect(field(page, 'Pages')).toHaveValue('3');
  await put(page);
  await expect(slip(page)).not.toContainText('One size is not like the rest');
  const path = await written(page);
  for (const { TrimBox } of boxesOf(path))
    expect(
      sizeOf(TrimBox!)
        .sort((a, b) => a - b)
        .map(Math.round),
    ).toEqual([420, 595]);
});

test('bleed: what the art does not reach is found and filled by its mirror image; margins, columns and the safe area', async ({
  page,
}) => {
  const document = await PDFDocument.create();
  const font = await document.embedFont(StandardFonts.Helvetica);
  for (let n = 0; n < 4; n++) {
    const made = document.addPage([A5.width, A5.height]);
    made.drawRectangle({ x: 0, y: 0, ...A5, color: rgb(0.8, 0.9, 0.8) });
    made.drawText('Larkmoor', { x: n === 2 ? 2 : 60, y: 300, size: 20, font });
  }
  await jobOf(page, await document.save());
  await expect(slip(page)).toContainText('Too near to the trim');
  await slip(page).getByRole('button', { name: 'Select page 3' }).click();
  await page.keyboard.press('Control+a');
  await page.keyboard.press('e');
  await field(page, 'All round').fill('1/8in');
  await put(page);
  await expect(slip(page)).toContainText('3.175 mm asked for, 0 mm there');
  await slip(page).getByRole('button', { name: 'Mirror the edge into the bleed' }).click();
  await expect(slip(page)).not.toContainText('The art does not reach the bleed');
  await step(page, 3)
    .getByRole('button', { name: /Edit step/ })
    .click();
  await slip(page).getByText('Enlarge', { exact: true }).click();
  await expect(slip(page)).toContainText('art at 104.29 %');
  await page.keyboard.press('Escape');
  await page.keyboard.press('m');
  await field(page, 'Spine').fill('20');
  await slip(page).getByRole('spinbutton', { name: 'Columns' }).fill('2');
  await expect(slip(page)).toContainText('116 mm between the margins');
  await expect(slip(page)).toContainText('= 55.5 mm a column');
  await field(page, 'Spine').fill('160');
  await expect(slip(page).getByRole('alert').first()).toContainText('The page is only 148 mm there');
  await field(page, 'Spine').fill('20');
  await put(page);
  await expect(step(page, 4)).toContainText('2 columns, 5 mm apart');
  const path = await written(page);
  for (const { MediaBox } of boxesOf(path)) expectSize(MediaBox, A5.width + 18, A5.height + 18);
  expect(tool('pdfimages', '-list', path).trim().split('\n')).toHaveLength(2);
});

test('formats: made, put on, dropped on a page; pages follow a change but for what is their own, which is given back', async ({
  page,
}) => {
  await jobOf(page, await markedPdf(6, A5));
  await slip(page).getByText('Formats').click();
  await slip(page).getByRole('button', { name: 'New format' }).click();
  await slip(page).getByLabel('Name').fill('Body');
  await slip(page).getByRole('checkbox', { name: 'trim size' }).check();
  await field(page, 'Width').fill('140');
  await field(page, 'Height').fill('200');
  await slip(page).getByRole('button', { name: 'Keep format' }).click();
  await saved(page);
  await pick(page, 'odd');
  await slip(page).getByRole('button', { name: 'apply to selected' }).click();
  await expect(slip(page)).toContainText('3 of 6 pages change size');
  await put(page);
  await expect(step(page, 2)).toContainText('“Body”');
  await pick(page, '');
  await slip(page).getByRole('listitem').filter({ hasText: 'Body' }).dragTo(tile(page, 2));
  await expect(step(page, 3)).toContainText('page 2');
  await pick(page, '3');
  await page.keyboard.press('s');
  await field(page, 'Width').fill('150');
  await put(page);
  await slip(page).getByRole('button', { name: 'Body' }).click();
  await field(page, 'Height').fill('190');
  await expect(slip(page)).toContainText('4 pages have it; 3 change size');
  await slip(page).getByRole('button', { name: 'Change format' }).click();
  await saved(page);
  await tile(page, 3).click();
  await expect(slip(page)).toContainText('150 × 200 mm');
  await expect(slip(page)).toContainText('own trim');
  await slip(page).getByRole('button', { name: 'give back' }).click();
  await expect(slip(page)).toContainText('140 × 190 mm');
  await page.getByLabel('selected').fill('format:body');
  await expect(page.locator('footer')).toContainText('4 of 6 pages');
  const trims = boxesOf(await written(page)).map(({ TrimBox }) => Math.round(sizeOf(TrimBox!)[1]! / mm(1)));
  expect(trims).toEqual([190, 190, 190, 210, 190, 210]);
});

test('from no file to a set of pieces: blank pages of a shape, another size of one, all at one scale', async ({
  page,
}) => {
  await newJob(page, folder.url);
  await page.getByRole('button', { name: 'Blank pages' }).click();
  await expect(page.getByRole('heading', { name: 'Blank pages' })).toBeVisible();
  await slip(page).getByText('loose pages').click();
  await slip(page).getByLabel('How many').fill('0');
  await expect(slip(page).getByRole('alert')).toContainText('A whole number of pages from 1');
  await slip(page).getByLabel('How many').fill('1');
  await page.getByLabel('Named size').selectOption('named:A4');
  await field(page, 'All round').fill('3');
  await slip(page).getByRole('checkbox', { name: 'margins and columns' }).check();
  await put(page);
  await expect(tile(page, 1)).toHaveAccessibleName(/right-hand, blank/);
  await tile(page, 1).click();
  await page.keyboard.press('p');
  await slip(page).getByLabel('Piece').fill('Letterhead');
  await slip(page).getByLabel('How many wanted').fill('500');
  await put(page);
  await page.keyboard.press('a');
  await field(page, 'Width').fill('210');
  await field(page, 'Height').fill('297/3');
  await slip(page).getByLabel('Piece').fill('Slip');
  await put(page);
  await expect(step(page, 3)).toContainText('“Slip” · slip landscape, 210 × 99 mm');
  const [sheet, slipTile] = [
    await boxOf(tile(page, 1).locator('rect').first()),
    await boxOf(tile(page, 2).locator('rect').first()),
  ];
  // Bleed included: 216 × 303 and 216 × 105 mm, at one scale.
  expect(sheet.height / slipTile.height).toBeCloseTo(303 / 105, 1);
  await go(page, 'Sheets');
  await field(page, 'The pages become').selectOption('separate pages');
  await expect(page.getByRole('heading', { name: 'On no sheets' })).toBeVisible();
  const boxes = boxesOf(await written(page));
  expectSize(boxes[0]!.TrimBox, mm(210), mm(297));
  expectSize(boxes[1]!.MediaBox, mm(216), mm(105));
});

test('against the source, distances, positions, and units that change no length', async ({ page }) => {
  await jobOf(page, await markedPdf(2, { ...A5, rotate: 90 }));
  await pick(page, '1');
  await page.keyboard.press('s');
  await field(page, 'Width').fill('8.5in');
  await field(page, 'Height').fill('8.5in');
  await slip(page).getByText('Fit', { exact: true }).click();
  await put(page);
  await page.keyboard.press('v');
  await expect(page.getByRole('option', { name: 'Page 1 beside its source' })).toBeVisible();
  await expect(slip(page).getByRole('row', { name: /^trim/ })).toContainText('210 × 148');
  await expect(slip(page).getByRole('row', { name: /^trim/ })).toContainText('215.9 × 215.9');
  await expect(slip(page).getByRole('row', { name: /^scale/ })).toContainText('102.81 %');
  await page.keyboard.press('v');
  await expect(page.locator('.caption')).toContainText('as supplied');
  await expect(page.locator('.caption')).toContainText('now, one over the other');
  await page.keyboard.press('v');
  await page.getByLabel('Unit').selectOption('in-decimal');
  await expect(slip(page)).toContainText('8.5 × 8.5 in');
  await page.getByLabel('Unit').selectOption('in');
  await expect(slip(page)).toContainText('8 1/2 × 8 1/2 in');
  await page.getByLabel('Unit').selectOption('mm');
  // From one corner of the trim to the one across: the edges draw the points in.
  await page.keyboard.press('Escape');
  const trim = await boxOf(tile(page, 1).locator('rect').first());
  await page.mouse.move(trim.x + trim.width / 2, trim.y + trim.height / 4);
  await expect(page.locator('.hover')).toContainText(
    /page 1 · 10[78][\d.]* from the left, 5[345][\d.]* mm from the head/,
  );
  await page.keyboard.press('d');
  await page.mouse.click(trim.x + 3, trim.y + 3);
  await page.mouse.click(trim.x + trim.width - 3, trim.y + trim.height - 3);
  await expect(page.getByText('215.9 mm across · 215.9 mm down')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByText('Click two points')).toBeHidden();
});
