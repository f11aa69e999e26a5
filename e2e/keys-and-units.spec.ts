import { expect, test } from '@playwright/test';
import { markedPdf } from '../tests/outside';
import { drawnPictures, go, newJob, pdf, saved, step, takeIn, tile } from './bench';
import { Folder } from './folder';

let folder: Folder;
test.beforeAll(async () => {
  folder = await Folder.start({ demo: true });
});
test.afterAll(() => folder.kill('SIGTERM'));

test('the demo shows its fault, and all can be mended without a mouse', async ({ page }) => {
  await page.goto(folder.url);
  await expect(page.getByRole('listitem').filter({ hasText: 'Season timetable' })).toContainText('2 stop');
  await page.getByRole('link', { name: 'Open Season timetable' }).focus();
  await page.keyboard.press('Enter');
  await expect(tile(page, 14)).toBeVisible();
  await page.getByRole('button', { name: 'Blank inside each cover' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.locator('.job')).toContainText('16 pages');
  await saved(page);
  await page.keyboard.press('Alt+4');
  await expect(page).toHaveURL(/sheets$/);
  await expect(page.getByRole('option', { name: 'Sheet 1 front: page 16, label Back cover' })).toBeVisible();
  await page.keyboard.press('Alt+6');
  await expect(page.getByRole('button', { name: 'Make sheet PDF' })).toBeVisible();
  await page.keyboard.press('Alt+2');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeHidden();
});

test('pages move by typing where to, and a move into itself is refused', async ({ page }) => {
  await newJob(page, folder.url);
  await takeIn(page, pdf('six.pdf', await markedPdf(6)));
  await expect(step(page, 1)).toBeVisible();
  await go(page, 'Pages');
  await expect(tile(page, 6)).toBeVisible();
  await page.keyboard.press('/');
  await page.keyboard.type('5-6');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Move/ }).click();
  await page.getByRole('textbox', { name: 'Pages', exact: true }).fill('5-6');
  await page.getByText('Before', { exact: true }).click();
  await page.getByRole('textbox', { name: 'Before page' }).fill('6');
  await expect(page.getByText('Page 6 is one of the pages to be moved')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Apply', exact: true })).toBeDisabled();
  await page.getByRole('textbox', { name: 'Before page' }).fill('2');
  await page.getByRole('button', { name: 'Apply', exact: true }).click();
  await expect(step(page, 2)).toContainText('before page 2');
  await tile(page, 2).click();
  await expect(page.locator('.slip')).toContainText('page 5 of six.pdf');
  await page.getByText(/^Facing pages/).click();
  await page.getByRole('group', { name: 'First page lies' }).getByText('left').click();
  await expect(tile(page, 1)).toHaveAccessibleName(/left-hand/);
  await expect(page.getByRole('link', { name: /Sheets/ })).toContainText('2');
});

test('units change what is shown, never a length', async ({ page }) => {
  await newJob(page, folder.url);
  await takeIn(page, pdf('four.pdf', await markedPdf(4, { width: 612, height: 792 })));
  await expect(step(page, 1)).toBeVisible();
  await go(page, 'Pages');
  await tile(page, 1).click();
  const facts = page.locator('.slip dl');
  await expect(facts).toContainText('Letter, 215.9 × 279.4 mm');
  for (const [unit, text] of [
    ['in', '8 1/2 × 11 in'],
    ['pt', '612 × 792 pt'],
    ['pica', '51p × 66p'],
    ['cm', '21.59 × 27.94 cm'],
  ] as const) {
    await page.getByLabel('Unit').selectOption(unit);
    await expect(facts).toContainText(text);
  }
  await saved(page);
  await page.reload();
  await tile(page, 1).click();
  await expect(facts).toContainText('21.59 × 27.94 cm');
});

test('of a thousand pages only what is in sight is drawn, and a size is tried on all of them', async ({
  page,
}) => {
  await newJob(page, folder.url);
  await takeIn(page, pdf('thick.pdf', await markedPdf(1000)));
  await expect(step(page, 1)).toBeVisible();
  await go(page, 'Pages');
  await expect(tile(page, 1)).toBeVisible();
  await expect.poll(() => drawnPictures(page)).toBeGreaterThan(10);
  expect(await page.getByRole('option').count()).toBeLessThan(300);
  await page.getByRole('listbox', { name: 'Pages' }).focus();
  await page.keyboard.press('End');
  await expect(page.getByLabel('selected')).toHaveValue('1000');
  await expect(tile(page, 1000)).toBeVisible();
  await page.keyboard.press('Control+a');
  await page.keyboard.press('s');
  await page.getByLabel('Width', { exact: true }).fill('100');
  await expect(page.locator('.slip')).toContainText('1000 of 1000 pages change size');
  expect(await page.getByRole('option').count()).toBeLessThan(300);
});
