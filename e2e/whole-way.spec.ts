import { expect, test } from '@playwright/test';
import { mm } from '../src/lib/core/measure/unit';
import { boxesOf, keep, markedPdf, tool, wordsOf } from '../tests/outside';
import { drawnPictures, go, makeOutput, newJob, pdf, saved, step, takeIn, tile } from './bench';
import { Folder } from './folder';

let folder: Folder;
test.beforeAll(async () => {
  folder = await Folder.start();
});
test.afterAll(() => folder.kill('SIGTERM'));

test('from an empty job to two PDFs that print, fold and stitch', async ({ page }) => {
  await newJob(page, folder.url);
  const A5 = { width: mm(148), height: mm(210) };
  await takeIn(
    page,
    pdf('guide-inner.pdf', await markedPdf(12, A5)),
    pdf('cover-a.pdf', await markedPdf(1, { ...A5, bleed: mm(3), prefix: 'A' })),
    pdf('cover-b.pdf', await markedPdf(1, { ...A5, bleed: mm(3), prefix: 'B' })),
  );
  await expect(step(page, 3)).toContainText('cover-b.pdf');
  await expect(step(page, 1)).toContainText('guide-inner.pdf');
  await expect(page.getByLabel('Title of the job')).toHaveValue('guide inner');
  await expect(page.locator('.slip')).toContainText('A5, 148 × 210 mm');
  await expect.poll(() => drawnPictures(page)).toBeGreaterThan(5);

  // The cover goes in front: an edit of an earlier step, seen before it is accepted.
  await step(page, 2)
    .getByRole('button', { name: /Edit step/ })
    .click();
  await page.getByText('Start', { exact: true }).click();
  await page.getByRole('button', { name: 'Change step' }).click();
  await saved(page);
  await go(page, 'Pages');
  await expect(page.getByText('The pairs have come apart')).toBeVisible();
  await expect(tile(page, 14)).toBeVisible();
  await page.getByRole('button', { name: 'Blank inside each cover' }).hover();
  await expect(tile(page, 16)).toBeVisible();
  await page.getByRole('button', { name: 'Blank inside each cover' }).click();
  await expect(step(page, 5)).toContainText('Blank');
  await expect(page.getByText('The pairs have come apart')).toBeHidden();
  await expect(tile(page, 2)).toHaveAccessibleName(/left-hand, blank/);

  // Bleed by keyboard alone.
  await page.getByRole('listbox', { name: 'Pages' }).focus();
  await page.keyboard.press('Control+a');
  await expect(page.getByLabel('selected')).toHaveValue('1-16');
  await page.keyboard.press('e');
  await page.getByLabel('All round').fill('1/8in');
  await page.keyboard.press('Enter');
  await expect(step(page, 6)).toContainText('3.175 mm all round');

  await go(page, 'Sheets');
  await page.getByLabel('Sheet', { exact: true }).selectOption('SRA4');
  await expect(page.getByText(/No room for all marks/)).toBeVisible();
  await page.getByRole('button', { name: 'Use B4' }).click();
  await expect(page.getByRole('option', { name: 'Sheet 1 front: page 16' })).toBeVisible();
  await expect(page.locator('.slip')).toContainText('16 pages ÷ 4 = 4');
  await page.locator('.slip summary').getByText('Press', { exact: true }).click();
  await page.getByText('long edge').click();
  await saved(page);

  await go(page, 'Hand over');
  await page
    .getByRole('article')
    .filter({ hasText: 'Reading-order PDF' })
    .first()
    .getByRole('button', { name: 'Settings' })
    .click();
  await page.getByText('the trim only').click();
  await page.getByRole('button', { name: 'Change output' }).click();
  await saved(page);
  const sheets = keep(await makeOutput(page, 'Make sheet PDF'));
  const pages = keep(await makeOutput(page, 'Make reading-order PDF'));
  for (const file of [sheets, pages]) tool('qpdf', '--check', file);
  // Order as folded: 16·1, 2·15, 14·3 … with the interior's own numbers two less.
  const marks = wordsOf(sheets).map((side) =>
    side
      .filter(({ text }) => /^[AB]?P\d+$/.test(text))
      .sort((a, b) => a.x - b.x)
      .map(({ text }) => text)
      .join(' '),
  );
  // Turned on the long edge of a landscape sheet, backs stand upside down: left and right change places.
  expect(marks).toEqual(['BP1 AP1', '', 'P12 P1', 'P11 P2', 'P10 P3', 'P9 P4', 'P8 P5', 'P7 P6']);
  const second = wordsOf(sheets)[3]!;
  expect(second.find(({ text }) => text === 'FOOT2')!.y).toBeGreaterThan(
    second.find(({ text }) => text === 'HEAD2')!.y,
  );
  const size = ([x0, y0, x1, y1]: number[]) => [x1! - x0!, y1! - y0!];
  for (const { MediaBox, TrimBox, CropBox } of boxesOf(pages)) {
    [mm(148) + 18, mm(210) + 18].forEach((value, i) =>
      expect(Math.abs(size(MediaBox!)[i]! - value)).toBeLessThan(0.011),
    );
    [mm(148), mm(210)].forEach((value, i) =>
      expect(Math.abs(size(TrimBox!)[i]! - value)).toBeLessThan(0.011),
    );
    expect(CropBox).toEqual(TrimBox);
  }
  expect(
    wordsOf(pages)
      .map((words) => words.find(({ text }) => /^[AB]?P\d+$/.test(text))?.text ?? '-')
      .join(' '),
  ).toBe('AP1 - P1 P2 P3 P4 P5 P6 P7 P8 P9 P10 P11 P12 - BP1');
  expect(tool('pdfinfo', pages)).toContain('guide inner');

  // A change makes what was handed over out of date.
  await expect(page.getByText('up to date', { exact: true })).toHaveCount(2);
  await page.keyboard.press('Control+z');
  await saved(page);
  await expect(page.getByText('up to date', { exact: true })).toHaveCount(2);
  await page.keyboard.press('Control+z');
  await expect(page.getByText(/^out of date/).first()).toBeVisible();
});

test('bad files are named with their reason, leave nothing behind, and the rest of the drop goes on', async ({
  page,
}) => {
  await newJob(page, folder.url);
  const [before] = await folder.query<{ blobs: string }>('select count(*) as blobs from blob');
  const whole = Buffer.from(await markedPdf(3, { prefix: 'W' }));
  const locked = keep(whole, 'plain.pdf');
  tool('qpdf', '--encrypt', 'secret', 'owner', '256', '--', locked, `${locked}.locked`);
  await takeIn(
    page,
    { name: 'empty.pdf', buffer: Buffer.alloc(0) },
    { name: 'letter.pdf', buffer: Buffer.from('Dear preparer, the file is on its way.') },
    { name: 'locked.pdf', buffer: (await import('node:fs')).readFileSync(`${locked}.locked`) },
    { name: 'torn.pdf', buffer: whole.subarray(0, whole.length / 2) },
    { name: 'good.pdf', buffer: whole },
  );
  const arrivals = page.getByRole('list', { name: 'Files on their way in' });
  await expect(step(page, 1)).toContainText('good.pdf');
  for (const [name, reason] of [
    ['empty.pdf', 'This file is empty'],
    ['letter.pdf', 'This is neither a PDF'],
    ['locked.pdf', 'opens only with a password'],
    ['torn.pdf', /damaged|cut short/],
  ] as const)
    await expect(arrivals.locator('li').filter({ hasText: name })).toContainText(reason);
  const [after] = await folder.query<{ blobs: string; chunks: string }>(
    'select (select count(*) from blob) as blobs, (select count(*) from blob_chunk c where not exists (select from source s where s.blob_id = c.blob_id)) as chunks',
  );
  // The good one, and the one that waits for its password.
  expect(Number(after!.blobs)).toBe(Number(before!.blobs) + 2);
  await arrivals.getByRole('button', { name: 'Dismiss' }).first().click();
  await expect(arrivals.locator('li')).toHaveCount(3);
});

test('what is typed wrong is said at the field, and nothing goes on the docket', async ({ page }) => {
  await newJob(page, folder.url);
  await takeIn(page, pdf('four.pdf', await markedPdf(4)));
  await expect(step(page, 1)).toBeVisible();
  await go(page, 'Pages');
  await tile(page, 2).click();
  await page.keyboard.press('s');
  for (const [typed, reason] of [
    ['0', 'longer than 0'],
    ['-5', 'longer than 0'],
    ['6000', '200 in'],
    ['12 furlong', 'no unit known'],
    ['', 'Type a length'],
    ['5/0', 'Dividing by zero'],
  ] as const) {
    await page.getByLabel('Width', { exact: true }).fill(typed);
    await expect(page.locator('.slip').getByRole('alert')).toContainText(reason);
    await expect(page.getByRole('button', { name: 'Apply', exact: true })).toBeDisabled();
  }
  await page.getByLabel('Width', { exact: true }).fill('100+2*3');
  await page.getByRole('textbox', { name: 'Pages', exact: true }).fill('2, 9');
  await expect(page.locator('.slip').getByRole('alert')).toContainText(
    'There is no page 9: the job has pages 1 to 4',
  );
  await page.keyboard.press('Enter');
  await expect(step(page, 2)).toBeHidden();
  await page.getByRole('textbox', { name: 'Pages', exact: true }).fill('2');
  await expect(page.locator('footer')).toContainText('106 ×');
  await page.keyboard.press('Escape');
  await expect(page.locator('footer')).not.toContainText('106 ×');
});
