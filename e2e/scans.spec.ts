import { expect, test } from '@playwright/test';
import { wordsOf } from '../tests/outside';
import { chances, scanBooklet } from '../tests/scanSets';
import { go, newJob, put, slip, step, takeIn, written } from './bench';
import { Folder } from './folder';

let folder: Folder;
test.beforeAll(async () => {
  folder = await Folder.start();
});
test.afterAll(() => folder.kill('SIGTERM'));

test('twelve JPEG scans are dropped, read, cleaned, set straight, put in order and handed over, their words to be found', async ({
  page,
}) => {
  // Two upside down, one sideways; the last scans come first.
  const turns = [0, 0, 180, 0, 0, 90, 0, 0, 180, 0, 0, 0] as const;
  const { pictures } = await scanBooklet(
    { pages: 24, numbers: 'outer', bare: true },
    'sheets',
    150,
    (n) => ({
      turn: turns[n],
      skew: ((n * 7) % 11) / 3 - 1.6,
      noise: 4,
      beyond: 4,
      shadow: 0.15,
      quality: 75,
    }),
    chances(8),
  );
  await newJob(page, folder.url);
  const files = pictures.map((buffer, n) => ({
    name: `booklet ${n + 1}.jpg`,
    buffer,
    mimeType: 'image/jpeg',
  }));
  await takeIn(page, ...files.reverse());
  await expect(step(page, 12)).toContainText('booklet 12.jpg');
  await expect(step(page, 2)).toContainText('booklet 2.jpg');
  const reading = page.getByRole('status', { name: 'Reading the pages' });
  await reading.getByRole('button', { name: 'Cancel' }).click();
  await slip(page).getByRole('button', { name: 'Read them' }).click();
  await expect(reading).toBeVisible();
  await expect(reading).toBeHidden();
  await slip(page).getByText('Clean the scans').click();
  await slip(page).getByRole('button', { name: 'Make clean copies' }).click();
  await expect(page.getByRole('listitem').getByText('· cleaned')).toHaveCount(12);
  await expect(step(page, 2)).toContainText('booklet 2.jpg');
  await go(page, 'Pages');
  await page.getByRole('listbox', { name: 'Pages' }).focus();
  await page.keyboard.press('Shift+T');
  await expect(slip(page).getByText('What was measured')).toContainText('12');
  // The third lies 1.48° askew to the left of upright, whichever way up.
  await expect(slip(page).getByRole('row').nth(3)).toContainText(`${((14 % 11) / 3 - 1.6).toFixed(1)}`);
  await put(page);
  await page.keyboard.press('Escape');
  await page.keyboard.press('r');
  await slip(page).getByRole('button', { name: 'Work it out' }).click();
  await expect(slip(page).getByRole('status')).toContainText('22 agree, 2 have none');
  await expect(slip(page).getByRole('status')).toContainText(
    'Which way up: 11 by their numbers, 1 by its words.',
  );
  await put(page);
  await expect(page.getByText('24 pages', { exact: false }).first()).toBeVisible();
  await go(page, 'Hand over');
  await page
    .locator('article', { hasText: 'Reading-order PDF' })
    .getByRole('button', { name: 'Settings' })
    .click();
  await page.getByLabel('read the words on scans').check();
  await page.getByRole('button', { name: 'Change output' }).click();
  await expect(page.getByText('words on scans can be found')).toBeVisible();
  const pages = wordsOf(await written(page));
  expect(pages).toHaveLength(24);
  pages.slice(1, 23).forEach((words, n) => expect(words.map(({ text }) => text)).toContain(String(n + 2)));
  expect(pages[0]!.map(({ text }) => text)).toEqual(expect.arrayContaining(['Larkmoor', 'Railway']));
});
