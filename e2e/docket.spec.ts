import { expect, test, type Page } from '@playwright/test';
import { keep, markedPdf, tool } from '../tests/outside';
import {
  boxOf,
  field,
  go,
  makeOutput,
  newJob,
  pdf,
  placesOf,
  saved,
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

async function jobOf(page: Page, pages: number, name = 'pages.pdf'): Promise<void> {
  await newJob(page, folder.url);
  await takeIn(page, pdf(name, await markedPdf(pages)));
  await expect(step(page, 1)).toContainText(name);
  await go(page, 'Pages');
  await expect(tile(page, 1)).toBeVisible();
}
async function putBlanks(page: Page, count: number): Promise<void> {
  await page.getByRole('button', { name: /^Blank/ }).click();
  await page.getByLabel('How many').fill(String(count));
  await page.getByRole('button', { name: 'Apply', exact: true }).click();
}
async function blanks(page: Page, count: number): Promise<void> {
  await putBlanks(page, count);
  await saved(page);
}

test('undo and redo walk the docket; steps are switched off, moved, edited and deleted; all of it is still there after a reload', async ({
  page,
}) => {
  await jobOf(page, 6);
  const pages = page.locator('.job span');
  await blanks(page, 2);
  await tile(page, 1).click();
  await page.keyboard.press('Delete');
  await page.getByRole('button', { name: 'Apply', exact: true }).click();
  await expect(pages).toContainText('7 pages');
  await page.getByRole('listbox', { name: 'Pages' }).focus();
  await page.keyboard.press('Control+z');
  await expect(pages).toContainText('8 pages');
  await expect(step(page, 3)).toContainText('undone');
  await page.keyboard.press('Control+z');
  await expect(pages).toContainText('6 pages');
  await page.keyboard.press('Control+Shift+z');
  await page.keyboard.press('Control+Shift+z');
  await expect(pages).toContainText('7 pages');
  await saved(page);

  await step(page, 2).hover();
  await page.getByRole('button', { name: 'Switch off step 2' }).click();
  await expect(pages).toContainText('5 pages');
  await step(page, 3).hover();
  await page.getByRole('button', { name: 'More of step 3' }).click();
  await page.getByRole('menuitem', { name: 'Earlier' }).click();
  await expect(step(page, 2)).toContainText('Remove');
  await step(page, 2)
    .getByRole('button', { name: /Edit step/ })
    .click();
  await page.getByRole('textbox', { name: 'Pages', exact: true }).fill('1-3');
  await expect(page.getByText('6 − 3 = 3 pages')).toBeVisible();
  await page.getByRole('button', { name: 'Change step' }).click();
  await expect(pages).toContainText('3 pages');
  await saved(page);
  await page.reload();
  await expect(pages).toContainText('3 pages');
  await step(page, 2).hover();
  await page.getByRole('button', { name: /^Edit step 2\b/ }).focus();
  await page.keyboard.press('Delete');
  await expect(pages).toContainText('6 pages');
});

test('a step that is pointed at shows its pages; its tools cover none of its words; a long docket is searched', async ({
  page,
}) => {
  await jobOf(page, 6);
  let made = 1;
  for (const n of [1, 2, 3, 4, 5, 6, 1, 2, 3]) {
    await tile(page, n).click();
    await page.getByRole('listbox', { name: 'Pages' }).focus();
    await page.keyboard.press('t');
    await page.getByRole('button', { name: 'Apply', exact: true }).click();
    await expect(step(page, ++made)).toContainText(`page ${n}`);
  }
  await saved(page);
  const places = await placesOf(page, '.step', 4);
  await slowScripts(page);
  await page.reload({ waitUntil: 'commit' });
  // It is pointed at until the page has come to life.
  await expect(async () => {
    await step(page, 1).hover();
    await step(page, 5).hover();
    await expect(tile(page, 4).locator('[data-hinted]')).toHaveCount(1, { timeout: 1000 });
  }).toPass();
  await expect(page.locator('[data-hinted]')).toHaveCount(1);
  expect(await places()).toHaveLength(1);
  for (const n of [1, 5]) {
    await step(page, n).hover();
    const [words, tools] = [
      await boxOf(step(page, n).locator('.words')),
      await boxOf(step(page, n).locator('.tools')),
    ];
    expect(words.x + words.width).toBeLessThanOrEqual(tools.x);
  }
  await page.getByLabel('Find steps').fill('page 2');
  await expect(page.getByRole('button', { name: /^Edit step/ })).toHaveCount(2);
  await page.getByRole('button', { name: /^Edit step 9\b.*page 2/ }).click();
  await expect(field(page, 'Pages')).toHaveValue('2');
});

test('a step whose pages are gone says so and harms nothing', async ({ page }) => {
  await jobOf(page, 6);
  await page.getByLabel('selected').fill('5-6');
  await page
    .locator('.slip')
    .getByRole('button', { name: /^Remove/ })
    .click();
  await page.getByRole('textbox', { name: 'Pages', exact: true }).fill('5-6');
  await page.getByRole('button', { name: 'Apply', exact: true }).click();
  await step(page, 1)
    .getByRole('button', { name: /Edit step/ })
    .click();
  await page.getByLabel('Its pages').fill('1-4');
  await page.getByRole('button', { name: 'Change step' }).click();
  await expect(step(page, 2)).toContainText('does not apply');
  await expect(page.getByText('There is no page 5: the job has pages 1 to 4')).toBeVisible();
  await expect(page.locator('.job')).toContainText('4 pages');
});

test('picking: click, shift, ctrl, a drawn rectangle, typed, arrow keys; what is selected stays selected in the sheets', async ({
  page,
}) => {
  await jobOf(page, 8);
  const selected = page.getByLabel('selected');
  await tile(page, 2).click();
  await tile(page, 5).click({ modifiers: ['Shift'] });
  await expect(selected).toHaveValue('2-5');
  await tile(page, 3).click({ modifiers: ['Control'] });
  await expect(selected).toHaveValue('2, 4, 5');
  await go(page, 'Sheets');
  await expect(page.getByRole('option', { name: /page 4$/ })).toHaveAttribute('aria-selected', 'true');
  await go(page, 'Pages');
  await page.keyboard.press('Escape');
  await expect(selected).toHaveValue('');
  const [first, last] = [await boxOf(tile(page, 2)), await boxOf(tile(page, 3))];
  await page.mouse.move(first.x - 3, first.y - 3);
  await page.mouse.down();
  await page.mouse.move(last.x + last.width / 2, last.y + last.height / 2, { steps: 5 });
  await page.mouse.up();
  await expect(selected).toHaveValue('2, 3');
  await selected.fill('even not 2');
  await expect(page.locator('footer')).toContainText('3 of 8 pages');
  await selected.fill('even not');
  await expect(page.locator('footer').getByRole('alert')).toContainText('Something is missing at the end');
  await tile(page, 1).click();
  await page.getByRole('listbox', { name: 'Pages' }).focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(selected).toHaveValue('2, 3');
  const before = (await boxOf(tile(page, 1))).width;
  await page.mouse.move(600, 400);
  await page.keyboard.down('Control');
  await page.mouse.wheel(0, -300);
  await page.keyboard.up('Control');
  await expect.poll(async () => (await boxOf(tile(page, 1))).width).toBeGreaterThan(before * 1.3);
});

test('two windows see each other, and neither overwrites what the other did', async ({ page, context }) => {
  await jobOf(page, 4);
  const other = await context.newPage();
  await other.goto(page.url());
  await expect(tile(other, 4)).toBeVisible();
  await expect(page.locator('.job')).toContainText('another window is here too');
  // What is done in one is seen in the other by itself, and what is being typed there stays.
  await other.getByRole('button', { name: /^Blank/ }).click();
  await field(other, 'How many').fill('2');
  await blanks(page, 3);
  await expect(step(other, 2)).toContainText('3 pages', { timeout: 2500 });
  await expect(field(other, 'How many')).toHaveValue('2');
  await other.getByRole('button', { name: 'Apply', exact: true }).click();
  for (const each of [page, other]) await expect(each.locator('.job')).toContainText('9 pages');
  // Made at once, without knowing of each other: both are there; at the same place, the first one is.
  for (const [title, said] of [
    [undefined, 'Both changes are on the docket'],
    ['Another name', 'at the same place'],
  ] as const) {
    await other.route('**/status?**', (route) => route.abort());
    await expect(other.locator('.job')).toContainText('The server does not answer');
    await blanks(page, 1);
    if (title) {
      await page.getByLabel('Title of the job').fill('First');
      await page.keyboard.press('Enter');
      await saved(page);
      await other.getByLabel('Title of the job').fill(title);
      await other.keyboard.press('Enter');
    } else await putBlanks(other, 1);
    await expect(other.getByRole('alert').filter({ hasText: said })).toBeVisible();
    await other.unroute('**/status?**');
    await expect(other.locator('.job')).toContainText(title ? '12 pages' : '11 pages');
  }
  await page.reload();
  await expect(page.locator('.job')).toContainText('12 pages');
  await expect(page.getByLabel('Title of the job')).toHaveValue('First');
});

test('jobs: searched, copied, deleted when asked twice; a file that another job uses stays', async ({
  page,
}) => {
  await jobOf(page, 4, 'shared-file.pdf');
  await page.getByLabel('Title of the job').fill('Moor guide');
  await page.keyboard.press('Enter');
  await saved(page);
  await page.goto(folder.url);
  const card = (name: string) =>
    page.getByRole('listitem').filter({ has: page.getByText(name, { exact: true }) });
  await expect(card('Moor guide')).toContainText('4 pages');
  await expect
    .poll(() =>
      card('Moor guide')
        .locator('image')
        .evaluate((image) =>
          fetch((image as SVGImageElement).href.baseVal).then((response) =>
            response.headers.get('content-type'),
          ),
        ),
    )
    .toBe('image/png');
  await card('Moor guide').getByRole('button', { name: 'Copy' }).click();
  await expect(card('Moor guide (copy)')).toBeVisible();
  await page.getByLabel('Search jobs').fill('moor copy');
  await expect(page.getByRole('listitem')).toHaveCount(1);
  await page.getByLabel('Search jobs').fill('nothing like it');
  await expect(page.getByText('No job answers to')).toBeVisible();
  await page.getByLabel('Search jobs').fill('');
  await card('Moor guide').getByRole('button', { name: 'Delete' }).click();
  await expect(card('Moor guide')).toContainText('Delete this job?');
  await card('Moor guide').getByRole('button', { name: 'Delete' }).click();
  await expect(card('Moor guide')).toBeHidden();
  await card('Moor guide (copy)').getByRole('link', { name: /^Open/ }).click();
  await go(page, 'Hand over');
  tool('qpdf', '--check', keep(await makeOutput(page, 'Make sheet PDF')));
  await page.goto(folder.url);
  await card('Moor guide (copy)').getByRole('button', { name: 'Delete' }).click();
  await card('Moor guide (copy)').getByRole('button', { name: 'Delete' }).click();
  await expect(card('Moor guide (copy)')).toBeHidden();
  expect(
    await folder.query(
      'select 1 from job_source where not exists (select from job where job.id = job_source.job_id)',
    ),
  ).toEqual([]);
});

test('a power cut in the middle of an output loses nothing; one that is cancelled leaves nothing', async ({
  page,
}) => {
  await jobOf(page, 4000, 'thick.pdf');
  await go(page, 'Hand over');
  await page.getByRole('button', { name: 'Make reading-order PDF' }).click();
  await expect
    .poll(
      async () =>
        (
          await folder.query<{ state: string }>('select state from output order by created_at desc limit 1')
        )[0]?.state,
    )
    .toBe('working');
  await folder.kill('SIGKILL');
  expect(
    (await folder.query<{ state: string }>('select state from output order by created_at desc limit 1'))[0]!
      .state,
  ).toBe('working');
  await folder.run();
  const [download] = await Promise.all([
    page.waitForEvent('download', { timeout: 80_000 }),
    page.locator('a.file').first().click({ timeout: 80_000 }),
  ]);
  expect(tool('pdfinfo', await download.path())).toMatch(/Pages:\s+4000/);

  const [before] = await folder.query<{ blobs: string }>('select count(*) as blobs from blob');
  await page.getByRole('button', { name: 'Make reading-order PDF' }).click();
  // It goes on while somebody looks elsewhere, and stands in the list of all work, where it can be stopped too.
  const job = page.url();
  await page.goto(`${folder.url}/work`);
  const row = page.getByRole('row', { name: /thick pages/ }).filter({ hasNotText: 'done' });
  await row.getByRole('button', { name: 'Cancel' }).click();
  await expect(row).toContainText('cancelled');
  await page.goto(job);
  await expect(page.getByText('Cancelled. Nothing was written.')).toBeVisible();
  await page.waitForTimeout(1500);
  expect(await folder.query('select count(*) as blobs from blob')).toEqual([before]);
});
