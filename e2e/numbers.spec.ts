import { expect, test, type Locator, type Page } from '@playwright/test';
import sharp from 'sharp';
import { drawTickets } from '../demo/tickets';
import { drawInterior } from '../demo/timetable';
import { markedPdf, tool, wordsOf } from '../tests/outside';
import { boxOf, field, go, jobOf as startJob, put, saved, slip, step, written } from './bench';
import { Folder } from './folder';

let folder: Folder;
test.beforeAll(async () => {
  folder = await Folder.start();
});
test.afterAll(() => folder.kill('SIGTERM'));

const A5 = { width: 420, height: 595 };
const jobOf = async (page: Page, bytes: Uint8Array) => {
  await startJob(page, folder.url, bytes);
  await go(page, 'Numbers');
  await expect(page.getByRole('listbox', { name: 'Facing pages' })).toBeVisible();
};
const onMat = (page: Page) => page.getByRole('listbox', { name: 'Facing pages' });
const pick = async (page: Page, text: string) => {
  await page.getByLabel('selected').fill(text);
  await onMat(page).focus();
};
const middle = async (of: Locator) => {
  const { x, y, width, height } = await boxOf(of);
  return { x: x + width / 2, y: y + height / 2 };
};
/** A line that Folder put on a page, as it can be taken hold of. */
const line = (page: Page, text: string, on: string) =>
  page.getByRole('option', { name: `“${text}” on page ${on}`, exact: true });

test('the report: cover unnumbered, contents i and ii, body from 1, numbers at the outer edge', async ({
  page,
}) => {
  await jobOf(page, await markedPdf(10, A5));
  await pick(page, '3');
  await field(page, 'Page 3 is number').fill('i');
  await page.keyboard.press('Enter');
  await saved(page);
  await pick(page, '5');
  await field(page, 'Page 5 is number').fill('Page!');
  await expect(slip(page)).toContainText('cannot be counted from');
  await field(page, 'Page 5 is number').fill('1');
  await page.keyboard.press('Enter');
  await expect(step(page, 2)).toContainText('i from page 3');
  await expect(step(page, 2)).toContainText('then 1 from page 5');
  await pick(page, '');
  await page.keyboard.press('i');
  await put(page);
  await expect(page.getByRole('group', { name: 'Number series' })).toContainText('1 – 6');

  const path = await written(page);
  const { pagelabels } = JSON.parse(tool('qpdf', '--json', '--json-key=pagelabels', path)) as {
    pagelabels: { index: number; label: Record<string, unknown> }[];
  };
  expect(pagelabels.map(({ index, label }) => [index, label['/S']])).toEqual([
    [0, undefined],
    [2, '/r'],
    [4, '/D'],
  ]);
  const printed = wordsOf(path).map((words) => words.find(({ text }) => /^([ivx]+|\d+)$/.test(text)));
  expect(printed.map((word) => word?.text ?? '')).toEqual(['', '', 'i', 'ii', '1', '2', '3', '4', '5', '6']);
  printed.forEach((word, index) => word && expect(word.x > A5.width / 2).toBe(index % 2 === 0));
});

test('series in the table: two that meet are refused, a border is dragged along the band', async ({
  page,
}) => {
  await jobOf(page, await markedPdf(10, A5));
  await page.keyboard.press('#');
  await slip(page).getByRole('button', { name: 'Another series' }).click();
  await page.getByLabel('Series 2 begins at page').fill('1');
  await expect(slip(page)).toContainText('Two series begin at page 1');
  await page.getByLabel('Series 2 begins at page').fill('5');
  await page.getByLabel('Style of series 1').selectOption('r');
  await put(page);
  const border = await middle(page.getByRole('separator', { name: 'Border before page 5' }));
  const band = await boxOf(page.getByRole('group', { name: 'Number series' }));
  await page.mouse.move(border.x, border.y);
  await page.mouse.down();
  await page.mouse.move(band.x + (band.width * 7.5) / 10, border.y, { steps: 8 });
  await page.mouse.up();
  await expect(step(page, 2)).toContainText('then 1 from page 8');
  await saved(page);
});

test('a folio is clicked away from one page, and given back', async ({ page }) => {
  await jobOf(page, await markedPdf(6, A5));
  await page.keyboard.press('i');
  await put(page);
  await line(page, '3', '3').hover();
  await page.getByRole('option', { name: 'Click away “3” on page 3' }).click();
  await expect(step(page, 2)).toContainText('not on 1 page');
  await expect(line(page, '2', '2')).toBeVisible();
  await saved(page);
  const words = wordsOf(await written(page)).map((page) => page.map(({ text }) => text));
  expect(words.map((page) => page.some((text) => /^\d$/.test(text)))).toEqual([
    true,
    true,
    false,
    true,
    true,
    true,
  ]);
  await go(page, 'Numbers');
  await page.getByRole('option', { name: 'Give back “3” on page 3' }).click();
  await expect(step(page, 2)).not.toContainText('not on');
  await saved(page);
});

test('a folio that is dragged takes its twin along; it snaps, and its numbers follow', async ({ page }) => {
  await jobOf(page, await markedPdf(6, A5));
  await page.keyboard.press('i');
  await put(page);
  const [right, left] = [line(page, '3', '3'), line(page, '2', '2')];
  const leaf = await boxOf(
    page
      .getByRole('option', { name: /^Page 3,/ })
      .locator('rect')
      .first(),
  );
  const spine = leaf.x;
  const before = { right: await middle(right), left: await middle(left) };
  expect(before.right.x - spine).toBeCloseTo(spine - before.left.x, 0);
  await page.mouse.move(before.right.x, before.right.y);
  await page.mouse.down();
  await page.mouse.move(before.right.x - 40, before.right.y - 30, { steps: 6 });
  await expect(field(page, 'From head or foot')).not.toHaveValue('8');
  const during = { right: await middle(right), left: await middle(left) };
  expect(during.right.x).toBeLessThan(before.right.x - 25);
  expect(during.right.x - spine).toBeCloseTo(spine - during.left.x, 0);
  expect(during.right.y).toBeCloseTo(during.left.y, 0);
  // To the middle of the head: it takes that place, on both pages.
  await page.mouse.move(leaf.x + leaf.width / 2 + 3, leaf.y + 40, { steps: 8 });
  await page.mouse.up();
  await expect(page.getByRole('radio', { name: 'head, centre' })).toBeChecked();
  await put(page);
  await expect(step(page, 2)).toContainText('head, centre');
  // Drawn in by the middle of the page.
  for (const words of wordsOf(await written(page)))
    expect(Math.abs(words.find(({ text }) => /^\d$/.test(text))!.x - A5.width / 2)).toBeLessThan(0.2);
});

test('what cannot be printed is said in place: tokens, nothing, letters that a face lacks, lines on the art', async ({
  page,
}) => {
  await jobOf(page, await markedPdf(4, A5));
  await page.keyboard.press('i');
  await field(page, 'Text').fill('{seite}');
  await expect(slip(page)).toContainText('{seite} means nothing here. There are {page}');
  await field(page, 'Text').fill(' ');
  await expect(slip(page)).toContainText('Nothing would be printed');
  await expect(slip(page).getByRole('button', { name: 'Apply', exact: true })).toBeDisabled();
  await field(page, 'Text').fill('стр. {page}');
  await expect(slip(page)).toContainText('Source Sans 3 has no “с”');
  await slip(page).getByRole('button', { name: 'Set it in DejaVu Sans' }).click();
  await expect(step(page, 2)).toContainText('стр.');
  await saved(page);
  expect(tool('pdffonts', await written(page))).toMatch(/\+DejaVuSans\s+CID TrueType/);
  // The words at the foot of each page are there already: in the middle a line would print over them.
  await go(page, 'Numbers');
  await step(page, 2).getByRole('button').first().click();
  await page.getByRole('radio', { name: 'foot, centre' }).click();
  await field(page, 'From head or foot').fill('40pt');
  await expect(slip(page)).toContainText('A line on top of the art');
});

test('tickets: taken in, the die line on all of them and out of the list, numbered: three actions', async ({
  page,
}) => {
  await jobOf(page, await drawTickets());
  await pick(page, '51');
  await page.keyboard.press('Shift+Z');
  await put(page);
  await expect(page.locator('.job')).toContainText('50 pages');
  await pick(page, '');
  await page.keyboard.press('q');
  await expect(slip(page)).toContainText('last 050');
  await put(page);

  // The mat without the ink that is cut along.
  const pink = async () => {
    const { data } = await sharp(await onMat(page).screenshot())
      .removeAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    let count = 0;
    for (let at = 0; at < data.length; at += 3)
      if (data[at]! > 200 && data[at + 1]! < 120 && data[at + 2]! > 110) count++;
    return count;
  };
  await expect.poll(pink).toBeGreaterThan(50);
  await slip(page).locator('summary', { hasText: 'Inks' }).click();
  await expect(slip(page).getByRole('listitem').filter({ hasText: 'Die line' })).toContainText(
    'step 2 overlay',
  );
  await slip(page).getByRole('button', { name: 'Hide Die line' }).click();
  await expect.poll(pink).toBe(0);
  await slip(page).getByRole('button', { name: 'Die line alone' }).click();
  await expect.poll(pink).toBeGreaterThan(50);

  const path = await written(page);
  const words = wordsOf(path);
  expect(words).toHaveLength(50);
  words.forEach((page, n) => expect(page.map(({ text }) => text)).toContain(String(n + 1).padStart(3, '0')));
  expect(tool('mutool', 'show', path, 'trailer/Root/OCProperties/OCGs/1')).toContain('/Name (Cutting)');
});

test('a stamp beside the page number holds on left and right pages, and is kept for other jobs', async ({
  page,
}) => {
  await jobOf(page, await drawInterior());
  await expect
    .poll(
      async () =>
        (await folder.query<{ n: number }>("select count(*)::int n from measure where state <> 'done'"))[0]!
          .n,
    )
    .toBe(0);
  await page.reload();
  await expect(page.getByRole('option', { name: /^Page 3,/ })).toBeVisible();
  await onMat(page).focus();
  await page.keyboard.press('w');
  const file = slip(page).locator('input[type=file]');
  await file.setInputFiles({
    name: 'broken.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from('<svg width="3'),
  });
  await expect(slip(page)).toContainText('damaged, or states no size');
  await file.setInputFiles({
    name: 'mark.pdf',
    mimeType: 'application/pdf',
    buffer: Buffer.from(await markedPdf(1, { width: 60, height: 40, prefix: 'MM' })),
  });
  await expect(slip(page)).toContainText('mark.pdf');
  await page.getByLabel('Size by').selectOption('height');
  await field(page, 'Height').fill('20pt');
  await slip(page).locator('summary', { hasText: 'Beside an object' }).click();
  await slip(page).getByRole('button', { name: 'Click it on the page' }).click();
  // The number 3 stands at the outer edge of the right-hand page, near its foot.
  const leaf = await boxOf(
    page
      .getByRole('option', { name: /^Page 3,/ })
      .locator('rect')
      .first(),
  );
  const objects = page.getByRole('option', { name: /^Object \d+ on page 3$/ });
  const boxes = await Promise.all(
    (await objects.all()).map(async (each) => ({ each, box: await boxOf(each) })),
  );
  const number = boxes.find(
    ({ box }) => box.x > leaf.x + leaf.width * 0.85 && box.y > leaf.y + leaf.height * 0.85 && box.width < 30,
  )!;
  await number.each.click();
  await slip(page).getByText('inner', { exact: true }).click();
  await field(page, 'Gap').fill('9pt');
  await slip(page).locator('summary', { hasText: 'Kept stamps' }).click();
  await page.getByLabel('Name to keep it under').fill('Moor mark');
  await slip(page).getByRole('button', { name: 'Keep this one' }).click();
  await expect(slip(page).getByRole('button', { name: 'Moor mark', exact: true })).toBeVisible();
  await put(page);

  const found = wordsOf(await written(page)).map((words) => {
    const [mark, own] = [
      words.find(({ text }) => text === 'MMP1')!,
      words.filter(({ text }) => /^\d+$/.test(text)).sort((a, b) => a.y - b.y)[0]!,
    ];
    return { off: own.x - mark.x, level: Math.abs(own.y - mark.y) };
  });
  const [left, right] = [found[1]!, found[2]!];
  expect(right.off).toBeGreaterThan(20);
  expect(Math.abs(left.off + right.off)).toBeLessThan(0.5);
  expect(right.level).toBeLessThan(6);

  await jobOf(page, await markedPdf(2, A5));
  await page.keyboard.press('w');
  await slip(page).locator('summary', { hasText: 'Kept stamps' }).click();
  await slip(page).getByRole('button', { name: 'Moor mark', exact: true }).click();
  await expect(field(page, 'Height')).toHaveValue('7.056');
  await put(page);
  for (const words of wordsOf(await written(page))) expect(words.map(({ text }) => text)).toContain('MMP1');
});

test('an object that was clicked is kept as a stamp, and laid on the pages of another job', async ({
  page,
}) => {
  await jobOf(page, await markedPdf(2, A5));
  await page.keyboard.press('w');
  await slip(page).getByRole('button', { name: 'An object on a page' }).click();
  await page.getByRole('option', { name: 'Object 1 on page 1' }).click();
  await expect(slip(page)).toContainText('only a part of it');
  await slip(page).locator('summary', { hasText: 'Kept stamps' }).click();
  await page.getByLabel('Name to keep it under').fill('Clicked');
  await slip(page).getByRole('button', { name: 'Keep this one' }).click();
  await expect(slip(page).getByRole('button', { name: 'Clicked', exact: true })).toBeVisible();
  await jobOf(page, await markedPdf(2, { ...A5, prefix: 'Q' }));
  await page.keyboard.press('w');
  await slip(page).locator('summary', { hasText: 'Kept stamps' }).click();
  await slip(page).getByRole('button', { name: 'Clicked', exact: true }).click();
  await expect(slip(page)).toContainText('a part of it');
  await put(page);
  for (const words of wordsOf(await written(page)))
    expect(words.map(({ text }) => text)).toEqual(
      expect.arrayContaining([expect.stringMatching(/^(P|HEAD|FOOT)1$/)]),
    );
});

test('a scaled stamp is as large on the mat, on pages and on sheets, as it is printed', async ({ page }) => {
  await jobOf(page, await markedPdf(2, A5));
  await page.keyboard.press('w');
  await slip(page)
    .locator('input[type=file]')
    .setInputFiles({
      name: 'patch.svg',
      mimeType: 'image/svg+xml',
      buffer: Buffer.from(
        '<svg xmlns="http://www.w3.org/2000/svg" width="30mm" height="20mm"><rect width="30mm" height="20mm" fill="#ff00ff"/></svg>',
      ),
    });
  await expect(slip(page)).toContainText('What: the file');
  await page.getByLabel('Size by').selectOption('width');
  await field(page, 'Width').fill('180pt');
  await put(page);
  /** How wide what is magenta within an element is, as a share of the element's width. */
  const share = async (of: Locator) => {
    const { data, info } = await sharp(await page.screenshot({ clip: await boxOf(of) }))
      .removeAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    const columns = new Set<number>();
    for (let at = 0; at < data.length; at += 3)
      if (data[at]! > 150 && data[at + 1]! < 110 && data[at + 2]! > 130) columns.add((at / 3) % info.width);
    return columns.size / info.width;
  };
  for (const [stage, name] of [
    ['Pages', /^Page 1,/],
    ['Sheets', /Sheet 1 front: page 1$/],
  ] as const) {
    await go(page, stage);
    await expect.poll(() => share(page.getByRole('option', { name }).first())).toBeCloseTo(180 / A5.width, 1);
  }
});
