import {
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { PDFDocument } from '@cantoo/pdf-lib';
import { keep, markedPdf, tool, wordsOf } from '../tests/outside';
import { go, jobOf, makeOutput, put, slip } from './bench';
import { Folder } from './folder';

let folder: Folder;
test.beforeAll(async () => {
  folder = await Folder.start({ demo: true });
});
test.afterAll(() => folder.kill());

const positions = (path: string) =>
  wordsOf(path).map((words) => words.find(({ text }) => /^P\d+$/.test(text))?.text);
const count = async (sql: string): Promise<number> =>
  Number((await folder.query<{ count: string }>(`select count(*) as count from ${sql}`))[0]!.count);
const call = async (method: string, path: string, body: object) => {
  const answer = await folder.ask(method, path, body);
  return { status: answer.status, body: (await answer.json()) as { trouble?: { code: string } } };
};

test('40 pages go out as four named parts, listed before anything is written; they come as one archive', async ({
  page,
}) => {
  await jobOf(page, folder.url, await markedPdf(40));
  await go(page, 'Hand over');
  const output = page.getByRole('article').filter({ hasText: 'Make reading-order PDF' });
  await output.getByRole('button', { name: 'Settings' }).click();
  await slip(page).getByLabel('Split').selectOption('every');
  await slip(page).getByLabel('Name of the files').fill('Moor {part} of 4, {from}-{nowhere}');
  await expect(slip(page).getByRole('alert').first()).toContainText('{nowhere} means nothing here');
  await expect(page.getByRole('button', { name: 'Change output' })).toBeDisabled();
  await slip(page).getByLabel('Name of the files').fill('Moor {part} of 4, {from}-{to}');
  await expect(slip(page).locator('.preview li')).toHaveText([
    /^Moor 1 of 4, 01-10\.pdf/,
    /11-20/,
    /21-30/,
    /31-40/,
  ]);
  await page.getByRole('button', { name: 'Change output' }).click();
  const archive = keep(await makeOutput(page, 'Make reading-order PDF'), 'parts.zip');
  const out = `${archive}.d`;
  tool('python3', '-m', 'zipfile', '-e', archive, out);
  expect(readdirSync(out).sort()).toEqual(
    ['1 of 4, 01-10', '2 of 4, 11-20', '3 of 4, 21-30', '4 of 4, 31-40'].map((name) => `Moor ${name}.pdf`),
  );
  expect(
    readdirSync(out)
      .sort()
      .flatMap((name) => positions(join(out, name))),
  ).toEqual(Array.from({ length: 40 }, (_, n) => `P${n + 1}`));
  // A change makes it out of date; a reload loses nothing.
  await page.reload();
  await expect(page.getByText('up to date', { exact: true })).toBeVisible();
  await page.getByLabel('Title of the job').fill('Another title');
  await page.getByLabel('Title of the job').blur();
  await expect(page.getByText('out of date: the job has changed since')).toBeVisible();
});

async function rescued(page: Page): Promise<void> {
  await page.goto(folder.url);
  await page.getByRole('link', { name: 'Open Rule book 1931', exact: true }).click();
  await go(page, 'Pages');
  await page.getByRole('listbox', { name: 'Pages' }).press('r');
  await page.getByRole('button', { name: 'Work it out' }).click();
  await page.getByLabel('work it out anew on every job').check();
  await put(page);
}

test('the press and the cutter stand-ins show what they received: backs that lie wrong, the way to cut and its pieces', async ({
  page,
}) => {
  const send = async (button: string) => {
    await page.getByRole('button', { name: button }).click();
    await page.getByRole('link', { name: 'What it received' }).click();
  };
  await jobOf(page, folder.url, await markedPdf(8));
  await go(page, 'Hand over');
  await page.getByRole('button', { name: 'Press stand-in' }).click();
  await slip(page)
    .getByLabel('The press prints each sheet')
    .selectOption({ label: 'turned on the long edge' });
  await page.getByRole('button', { name: 'Change output' }).click();
  await send('Send to press');
  await expect(page.getByText('2 sheets, 4 sides')).toBeVisible();
  await expect(page.getByRole('alert')).toContainText('The backs come out upside down');
  await expect(page.getByRole('figure').filter({ hasText: 'upside down' })).toHaveCount(2);
  const shown = page.getByRole('figure').getByRole('img');
  await expect(shown).toHaveCount(4);
  await expect
    .poll(() => shown.first().evaluate((image: HTMLImageElement) => image.naturalWidth))
    .toBeGreaterThan(0);

  await page.goto(folder.url);
  await page.getByRole('link', { name: /Platform tickets/ }).click();
  await go(page, 'Hand over');
  await page.getByRole('button', { name: 'Cutter stand-in' }).click();
  await send('Send to cutter');
  // 50 times round a ticket and its hole: 171.76 mm and two pieces each.
  await expect(page.getByText('50 pages · 8.588 m to cut · 100 pieces · layer Cutting')).toBeVisible();
  const drawn = page.getByRole('figure').getByRole('img').first();
  await expect.poll(() => drawn.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBeGreaterThan(0);
});

test('steps of a job become a recipe, which works the scanner’s next booklets in a drop folder', async ({
  page,
}) => {
  await rescued(page);
  await page.getByRole('button', { name: 'Save as a recipe' }).click();
  await slip(page).getByLabel('Name', { exact: true }).fill('Read in order');
  const values = slip(page).getByLabel('Ask for a value besides the steps');
  await slip(page).getByLabel('how pages go on sheets').uncheck();
  await slip(page).getByLabel('how the book lies').uncheck();
  await expect(values).not.toContainText('book spine');
  await slip(page).getByLabel('how the book lies').check();
  await values.selectOption('book spine');
  await slip(page).getByLabel('Question for spine').fill('Bound at');
  await page.getByRole('button', { name: 'Save recipe' }).click();
  await expect(slip(page).getByRole('status')).toContainText('version 1');
  await page.goto(`${folder.url}/recipes`);
  const recipe = page.locator('article', { hasText: 'Read in order' });
  await recipe.getByRole('button', { name: 'Use it' }).click();
  await recipe.getByLabel('Its name').fill('../outside');
  await recipe.getByRole('button', { name: 'Add drop folder' }).click();
  await expect(page.getByRole('alert')).toContainText('cannot be the name of a drop folder');
  await recipe.getByLabel('Its name').fill('desk');
  await expect(recipe.getByLabel('Bound at')).toHaveValue('left');
  await recipe.getByRole('button', { name: 'Add drop folder' }).click();
  const desk = page.locator('article', { hasText: `${basename(folder.drops)}/desk` });
  await desk.getByText('Scanner (a simulated stand-in)').click();
  await desk.getByRole('button', { name: 'Scan one now' }).click();
  await expect(desk).toContainText('1 done');
  await page.getByRole('link', { name: 'Open the job' }).first().click();
  await go(page, 'Hand over');
  await expect(page.getByText('up to date', { exact: true })).toHaveCount(2);
  await page.goto(`${folder.url}/recipes`);
  await desk.getByText('Scanner (a simulated stand-in)').click();
  await desk.getByLabel('a sheet missing').check();
  await desk.getByRole('button', { name: 'Scan one now' }).click();
  await expect(desk).toContainText('1 failed');
  await page.getByRole('link', { name: 'Work', exact: true }).click();
  await expect(page.getByRole('row', { name: /failed/ })).toContainText('Scans are missing');
  // What became of the other one is shown as it begins.
  await expect(page.getByRole('row', { name: /done/ }).first().locator('.picture svg')).toBeVisible();
  const [made] = readdirSync(join(folder.drops, 'desk', 'done'));
  const files = readdirSync(join(folder.drops, 'desk', 'done', made!));
  const pdf = join(
    folder.drops,
    'desk',
    'done',
    made!,
    files.find((name) => / pages\.pdf$/.test(name))!,
  );
  // What the scanner laid turned and in binding order is read from front to back: folios 2 to 15 at the foot, upright.
  const folios = wordsOf(pdf).map((words) => words.find(({ text, y }) => /^\d+$/.test(text) && y < 40)?.text);
  expect(folios).toEqual([undefined, ...Array.from({ length: 14 }, (_, n) => String(n + 2)), undefined]);
  const [failed] = readdirSync(join(folder.drops, 'desk', 'failed'));
  expect(readFileSync(join(folder.drops, 'desk', 'failed', failed!, 'why.txt'), 'utf8')).toContain(
    'says stop',
  );
});

test('a recipe is tried on an open job before it is replayed, asks for what it must, and undo takes it back whole', async ({
  page,
}) => {
  const recipe = {
    recipe: 1,
    name: 'Front and back off',
    steps: [
      { id: 'x', kind: 'remove', pages: '1' },
      { id: 'y', kind: 'remove', pages: 'last' },
    ],
    asks: [{ name: 'first', label: 'Pages to leave out', kind: 'pages', step: 'x', path: ['pages'] }],
  };
  expect((await call('PUT', '/api/recipes', recipe)).status).toBe(200);
  for (const [wrong, code] of [
    [{ ...recipe, recipe: 9 }, 'recipe-newer'],
    [{ ...recipe, steps: [{ id: 'x', kind: 'emboss' }] }, 'recipe-unknown-step'],
  ] as const)
    expect(await call('PUT', '/api/recipes', wrong)).toMatchObject({
      status: 400,
      body: { trouble: { code } },
    });
  await jobOf(page, folder.url, await markedPdf(8));
  await page.getByRole('button', { name: 'Replay a recipe' }).click();
  await slip(page).getByLabel('Recipe', { exact: true }).selectOption('Front and back off');
  await expect(slip(page).getByRole('alert')).toContainText('The recipe asks for “Pages to leave out”');
  await slip(page).getByLabel('Pages to leave out').fill('1-3');
  await expect(page.getByRole('listbox', { name: 'Pages' }).getByRole('option')).toHaveCount(4);
  await page.getByRole('button', { name: 'Replay', exact: true }).click();
  await expect(page.getByLabel('Docket')).toContainText('from “Front and back off”, version 1');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByLabel('Docket').locator('.step:not(.ahead)')).toHaveCount(1);
  await expect(page.getByLabel('Docket').locator('.step.ahead')).toHaveCount(2);
});

test('200 files in bursts, two workers, one killed in the middle and started again: each gives one result, none is lost', async () => {
  await call('PUT', '/api/recipes', {
    recipe: 1,
    name: 'As they are',
    steps: [{ id: 'b', kind: 'bleed', pages: 'all', head: 8, foot: 8, spine: 8, fore: 8 }],
    outputs: [{ kind: 'pages', crop: 'trim', name: '{source} made' }],
  });
  expect((await call('POST', '/api/drop-folders', { name: 'burst', recipe: 'As they are' })).status).toBe(
    200,
  );
  const inbox = join(folder.drops, 'burst');
  const names = Array.from({ length: 200 }, (_, n) => `file ${n}.pdf`);
  const drop = async (some: readonly string[]) => {
    for (const name of some) {
      const document = await PDFDocument.create();
      document.addPage([200, 200]).drawText(name);
      writeFileSync(join(inbox, `.${name}`), await document.save());
      renameSync(join(inbox, `.${name}`), join(inbox, name));
    }
  };
  const ended = () =>
    count(
      "run where folder_id = (select id from drop_folder where name = 'burst') and state in ('done', 'failed')",
    );
  const second = folder.startWorker();
  await drop(names.slice(0, 80));
  await expect.poll(() => count("run where state = 'waiting'")).toBeGreaterThan(5);
  const [{ id } = { id: '' }] = await folder.query<{ id: string }>(
    "select id from drop_folder where name = 'burst'",
  );
  expect(await call('DELETE', `/api/drop-folders/${id}`, {})).toMatchObject({
    status: 409,
    body: { trouble: { code: 'drop-busy' } },
  });
  await expect.poll(ended, { timeout: 90_000 }).toBeGreaterThan(25);
  second.kill('SIGKILL');
  await drop(names.slice(80, 140));
  folder.startWorker();
  await drop(names.slice(140));
  // What is half written, locked, no PDF, or hostile.
  const whole = await markedPdf(3);
  writeFileSync(join(inbox, 'half.pdf'), whole.subarray(0, 900));
  writeFileSync(join(inbox, 'words.pdf'), 'no PDF at all');
  writeFileSync(join(inbox, 'empty.pdf'), '');
  symlinkSync('/etc/passwd', join(inbox, 'link.pdf'));
  const plain = keep(whole);
  tool('qpdf', '--encrypt', 'user', 'owner', '256', '--', plain, `${plain}.locked`);
  writeFileSync(join(inbox, 'locked.pdf'), readFileSync(`${plain}.locked`));
  const bomb = Buffer.from(
    '%PDF-1.4\n1 0 obj<</Type/Catalog/Pages 2 0 R>>endobj\n2 0 obj<</Type/Pages/Kids[2 0 R]/Count 999999999>>endobj\ntrailer<</Root 1 0 R>>',
  );
  writeFileSync(join(inbox, 'loop.pdf'), bomb);
  await expect.poll(ended, { timeout: 200_000 }).toBe(206);
  await expect.poll(() => readdirSync(join(inbox, 'working')).length).toBe(0);
  const done = readdirSync(join(inbox, 'done'));
  expect(done.sort()).toEqual(names.map((name) => name.replace('.pdf', '')).sort());
  for (const name of done) {
    expect(readdirSync(join(inbox, 'done', name)).sort()).toEqual([`${name} made.pdf`, `${name}.pdf`]);
    if (done.indexOf(name) % 20 === 0)
      expect(
        wordsOf(join(inbox, 'done', name, `${name} made.pdf`))
          .flat()
          .map(({ text }) => text)
          .join(' '),
      ).toBe(`${name}.pdf`);
  }
  const why = (name: string) => readFileSync(join(inbox, 'failed', name, 'why.txt'), 'utf8');
  expect(readdirSync(join(inbox, 'failed')).sort()).toEqual([
    'empty',
    'half',
    'link',
    'locked',
    'loop',
    'words',
  ]);
  expect(why('locked')).toContain('opens only with a password');
  expect(why('words')).toContain('neither a PDF');
  expect(why('empty')).toContain('no bytes');
  expect(why('link')).toContain('not followed');
  expect(why('half')).toMatch(/damaged|cut short/);
  expect(why('loop')).toMatch(/damaged|no pages|cannot be read/i);
  expect(readdirSync(inbox).sort()).toEqual(['done', 'failed', 'working']);
  // One job for each file, no more.
  expect(await count("run where state = 'done' and recipe->>'name' = 'As they are'")).toBe(200);
  expect(await count("job where summary->>'title' like 'file %'")).toBe(200);
});

test('a drop folder that was made a link out of the root is told, and nothing is taken through it', async () => {
  const recipe = 'Nothing done';
  await call('PUT', '/api/recipes', { recipe: 1, name: recipe, steps: [] });
  expect((await call('POST', '/api/drop-folders', { name: 'gate', recipe })).status).toBe(200);
  const outside = mkdtempSync(join(tmpdir(), 'folder-outside-'));
  writeFileSync(join(outside, 'kept.txt'), 'x');
  // Folder makes the directory again as soon as it sees that there is none: whoever is quicker.
  await expect(() => {
    renameSync(join(folder.drops, 'gate'), join(outside, `was-${Date.now()}`));
    symlinkSync(outside, join(folder.drops, 'gate'));
  }).toPass();
  const there = readdirSync(outside).sort();
  const told = async () =>
    (
      await folder.query<{ trouble: { code: string } | null }>(
        "select trouble from drop_folder where name = 'gate'",
      )
    )[0]!.trouble?.code;
  await expect.poll(told).toBe('drop-outside');
  expect(existsSync(join(outside, 'kept.txt'))).toBe(true);
  expect(readdirSync(outside).sort()).toEqual(there);
  for (const name of ['../x', 'a/b', '/etc', '.', '..', 'x\u0000'])
    expect((await call('POST', '/api/drop-folders', { name, recipe })).status).toBe(400);
});
