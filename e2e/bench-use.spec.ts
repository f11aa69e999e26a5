import { expect, test } from '@playwright/test';
import { keep, markedPdf, readBack, tool } from '../tests/outside';
import {
  boxOf,
  field,
  go,
  jobOf,
  newJob,
  pdf,
  pick,
  placesOf,
  put,
  saved,
  slip,
  slowScripts,
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
test.beforeEach(async ({ page }) => jobOf(page, folder.url, await markedPdf(8)));

const stages = (page: import('@playwright/test').Page) => page.getByRole('navigation', { name: 'Stages' });

test('what is half typed stays with its stage, which shows it, and units change in place', async ({
  page,
}) => {
  await pick(page, '2-3');
  await page.keyboard.press('s');
  await field(page, 'Width').fill('123');
  await go(page, 'Sheets');
  await expect(stages(page).getByRole('link', { name: /Pages/ })).toContainText('…');
  await field(page, 'Sheet width').fill('501');
  // What is typed on Sheets is in place as soon as its field is left, as what is chosen there is.
  await go(page, 'Take in');
  await saved(page);
  await go(page, 'Pages');
  await expect(field(page, 'Width')).toHaveValue('123');
  await page.getByLabel('Unit').selectOption('cm');
  await expect(field(page, 'Width')).toHaveValue('12.3');
  await saved(page);
  await go(page, 'Sheets');
  await expect(field(page, 'Sheet width')).toHaveValue('50.1');
  await page.getByRole('listbox', { name: 'Sheets' }).focus();
  await page.keyboard.press('Control+z');
  await expect(field(page, 'Sheet width')).not.toHaveValue('50.1');
  await go(page, 'Pages');
  await put(page);
  await expect(tile(page, 2)).toHaveAccessibleName(/123|12\.3/);
});

test('a form that is opened over another one gives it back, as it was typed', async ({ page }) => {
  await pick(page, '4');
  await page.keyboard.press('s');
  await field(page, 'Height').fill('222');
  await step(page, 1)
    .getByRole('button', { name: /^Edit step/ })
    .click();
  await expect(field(page, 'Its pages')).toBeVisible();
  await slip(page).getByRole('button', { name: 'Cancel', exact: true }).click();
  await expect(field(page, 'Height')).toHaveValue('222');
  await put(page);
  await expect(step(page, 2)).toContainText('222');
});

test('what is found while a form is filled in moves none of its buttons', async ({ page }) => {
  // With room for the whole form: in a shorter slip the buttons keep to its foot anyway.
  await page.setViewportSize({ width: 1280, height: 1200 });
  await pick(page, '3');
  await page.keyboard.press('s');
  const apply = slip(page).getByRole('button', { name: 'Apply', exact: true });
  const before = await boxOf(apply);
  await field(page, 'Width').fill('30');
  await expect(slip(page).getByText(/page.* change size/)).toBeVisible();
  await expect(slip(page).getByRole('heading', { name: 'What would go wrong' })).toBeAttached();
  expect(await boxOf(apply)).toEqual(before);
});

test('a second window changes the job: the first one shows it by itself, and keeps what is half typed', async ({
  page,
  context,
}) => {
  await pick(page, '5');
  await page.keyboard.press('s');
  await field(page, 'Width').fill('111');
  const other = await context.newPage();
  await other.goto(page.url());
  await other.getByLabel('Title of the job').fill('Two windows');
  await other.getByLabel('Title of the job').press('Enter');
  await saved(other);
  await expect(page.getByLabel('Title of the job')).toHaveValue('Two windows');
  await expect(field(page, 'Width')).toHaveValue('111');
  await pick(other, '1');
  await other.keyboard.press('Delete');
  await put(other);
  await expect(step(page, 2)).toContainText('Remove');
  await expect(field(page, 'Width')).toHaveValue('111');
  await put(page);
  await expect(step(page, 3)).toContainText('111');
});

test('what nobody typed follows the pages that are named; a series begins where a page is selected', async ({
  page,
}) => {
  await pick(page, '5');
  await page.keyboard.press('s');
  await field(page, 'Width').fill('99');
  await put(page);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await page.keyboard.press('s');
  await expect(field(page, 'Width')).not.toHaveValue('99');
  await slip(page).getByLabel('Pages', { exact: true }).fill('5');
  await expect(field(page, 'Width')).toHaveValue('99');
  await page.keyboard.press('Escape');
  await pick(page, '3');
  await page.keyboard.press('#');
  await expect(slip(page).getByLabel('Series 1 begins at page')).toHaveValue('3');
});

test('keys act on the mat unless text is typed; with nothing selected Delete does nothing', async ({
  page,
}) => {
  const selected = page.getByLabel('selected');
  await selected.fill('2-3');
  await selected.press('Enter');
  await page.keyboard.press('s');
  await expect(slip(page).getByRole('heading', { name: /size/i })).toBeVisible();
  await expect(selected).toHaveValue('2-3');
  // A choice by buttons is no text.
  await slip(page).getByText('Fit', { exact: true }).click();
  await page.keyboard.press('Escape');
  await expect(selected).toHaveValue('2-3');
  await page.keyboard.press('Escape');
  await expect(selected).toHaveValue('');
  await page.keyboard.press('Delete');
  await expect(slip(page).getByRole('heading', { name: 'Pages', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Zoom in' }).click();
  await page.keyboard.press('End');
  await expect(selected).toHaveValue('8');
  await page.keyboard.press('z');
  const box = await tile(page, 8).boundingBox();
  expect(box!.height).toBeGreaterThan(400);
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
});

test('a PDF that opens only with a password is opened with it, and its pages come in', async ({ page }) => {
  const plain = keep(await markedPdf(3));
  const locked = `${plain}.locked.pdf`;
  tool('qpdf', '--encrypt', 'häuser 7', 'owner', '256', '--', plain, locked);
  await go(page, 'Take in');
  await takeIn(page, pdf('secret.pdf', readBack(locked)));
  const password = page.getByLabel('Password');
  await password.fill('wrong');
  await password.press('Enter');
  await expect(password).toHaveValue('');
  await password.fill('häuser 7');
  await password.press('Enter');
  await expect(step(page, 2)).toContainText('secret.pdf');
  await expect(page.locator('.job')).toContainText('11 pages');
});

test('what pages are likely to become is said, and is another thing in one click', async ({ page }) => {
  await newJob(page, folder.url);
  await takeIn(page, pdf('poster.pdf', await markedPdf(1)));
  await expect(slip(page).getByText('Taken for flat work')).toBeVisible();
  await slip(page).getByRole('button', { name: 'stitched booklet' }).click();
  await expect(page.locator('.job')).toContainText('stitched booklet');
});

test('jobs are sorted and filtered, those of one title told apart; keys and the guide are at hand', async ({
  page,
}) => {
  await newJob(page, folder.url);
  await newJob(page, folder.url);
  await page.goto(folder.url);
  const titles = () => page.getByRole('listitem').getByRole('link', { name: /^Open/ }).allTextContents();
  await expect(page.getByRole('listitem').nth(2)).toBeVisible();
  const all = (await titles()).length;
  expect(all).toBeGreaterThan(2);
  // Two are called “New job”: when each was changed tells them apart, where others say how long ago.
  await expect(page.locator('time', { hasText: /\d{4} at \d\d:\d\d/ }).nth(1)).toBeVisible();
  await page.getByLabel('by', { exact: true }).selectOption('pages');
  await expect(page).toHaveURL(/order=pages/);
  await expect
    .poll(async () => {
      const pages = await page.getByRole('listitem').locator('.counts .mono:first-child').allTextContents();
      return pages.map(Number).every((count, n, all) => !n || count <= all[n - 1]!);
    })
    .toBe(true);
  await page.getByLabel('show', { exact: true }).selectOption('stop');
  await expect.poll(async () => (await titles()).length).toBeLessThan(all);
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('?');
  await page.getByRole('link', { name: 'Work', exact: true }).click();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.goto(`${folder.url}/guide/pages`);
  await expect(page.getByRole('heading', { name: 'Pages', exact: true })).toBeVisible();
});

test('of many jobs each has its card; none goes out of sight or moves from under the pointer while the page comes to life', async ({
  page,
}) => {
  for (let n = 0; n < 25; n++)
    await fetch(`${folder.url}/api/jobs`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: '{}',
    });
  const [{ count }] = (await folder.query('select count(*)::int from job')) as [{ count: number }];
  const places = await placesOf(page, '.card', 4);
  // What was typed before the page came to life is searched for.
  await slowScripts(page);
  await page.goto(folder.url, { waitUntil: 'commit' });
  await page.getByLabel('Search jobs').fill('no such job');
  await expect(page.getByText('No job answers to')).toBeVisible();
  expect(await places()).toHaveLength(1);
  await page.getByLabel('Search jobs').fill('');
  await expect(page.locator('.card').first()).not.toHaveCSS('background-color', 'rgba(0, 0, 0, 0)');
  const ids = new Set<string>();
  await expect
    .poll(async () => {
      await page.mouse.wheel(0, 400);
      for (const link of await page.getByRole('listitem').getByRole('link', { name: /^Open/ }).all())
        ids.add((await link.getAttribute('href'))!);
      return ids.size;
    })
    .toBe(count);
});

test('the right button offers what can be done to a page, and to a step', async ({ page }) => {
  await tile(page, 4).click({ button: 'right' });
  const menu = page.getByRole('menu');
  await menu.getByRole('menuitem', { name: 'Size' }).click();
  await expect(slip(page).getByLabel('Pages', { exact: true })).toHaveValue('4');
  await page.keyboard.press('Escape');
  await step(page, 1).click({ button: 'right' });
  await page.keyboard.press('Escape');
  await expect(menu).toBeHidden();
  await step(page, 1).click({ button: 'right' });
  await menu.getByRole('menuitem', { name: 'Switch off' }).click();
  await expect(step(page, 1)).toContainText('switched off');
});

test('a window magnified twice shows everything one under the other', async ({ page }) => {
  await page.setViewportSize({ width: 640, height: 400 });
  for (const name of ['Pages', 'Numbers', 'Sheets', 'Dummy'] as const) {
    await go(page, name);
    const { scroll, width } = await page.evaluate(() => ({
      scroll: document.documentElement.scrollWidth,
      width: innerWidth,
    }));
    expect(scroll, name).toBeLessThanOrEqual(width);
    await slip(page).getByRole('heading').first().scrollIntoViewIfNeeded();
    await expect(slip(page).getByRole('heading').first()).toBeInViewport();
  }
});
