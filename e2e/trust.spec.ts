import { chromium, expect, test, type Browser, type Page } from '@playwright/test';
import { spawnSync } from 'node:child_process';
import { createServer, type Server } from 'node:http';
import { closeSync, ftruncateSync, mkdtempSync, openSync, readFileSync } from 'node:fs';
import { connect, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { CHROMIUM } from '../tests/chromium';
import { markedPdf } from '../tests/outside';
import { go, newJob, pdf, saved, step, takeIn, tile } from './bench';
import { Folder } from './folder';

const { startPostgres } = (await import('../scripts/lib/postgres.mjs' as string)) as {
  startPostgres: (name: string) => Promise<{ url: string; stop: () => void; again: () => void }>;
};

/** Longer than a worker may be silent. */
const SILENT_MS = 11_000;
const standing = (page: Page) => page.locator('.job');
const title = (page: Page) => page.getByLabel('Title of the job');
async function rename(page: Page, to: string): Promise<void> {
  await title(page).fill(to);
  await page.keyboard.press('Enter');
}
/** A browser that finds every name of the kind on this machine, as after its name was pointed here. */
const browserFor = (names: string): Promise<Browser> =>
  chromium.launch({
    ...CHROMIUM,
    args: [...(CHROMIUM.args ?? []), `--host-resolver-rules=MAP ${names} 127.0.0.1`],
  });

test.describe('with parts that go away', () => {
  let database: Awaited<ReturnType<typeof startPostgres>>;
  let folder: Folder;
  let up = true;
  test.beforeAll(async () => {
    database = await startPostgres('away-postgres');
    folder = await Folder.start({ server: database.url });
  });
  test.afterAll(async () => {
    if (!up) database.again();
    await folder.kill('SIGTERM');
    database.stop();
  });

  test('the database away for 20 s, idle and under work: told within 3 s, nothing said to be saved that is not, and all goes on by itself', async ({
    page,
    context,
  }) => {
    await newJob(page, folder.url);
    await takeIn(page, pdf('thick.pdf', await markedPdf(3000)));
    await expect(step(page, 1)).toContainText('thick.pdf');
    const idle = await context.newPage();
    await newJob(idle, folder.url);
    await go(page, 'Hand over');
    await page.getByRole('button', { name: 'Make reading-order PDF' }).click();
    const running = [...folder.programs];
    const state = async () => (await folder.query<{ state: string }>('select state from output'))[0]?.state;
    await expect.poll(state).toBe('working');
    database.stop();
    up = false;
    const stopped = Date.now();
    for (const each of [page, idle])
      await expect(standing(each)).toContainText('does not answer', { timeout: 3000 });
    expect((await fetch(`${folder.url}/healthz`)).status).toBe(503);
    await rename(idle, 'Made while it was away');
    await expect(standing(idle)).toContainText('Not saved yet');
    await takeIn(idle, pdf('late.pdf', await markedPdf(2)));
    await page.waitForTimeout(Math.max(0, 20_000 - (Date.now() - stopped)));
    await expect(standing(idle)).not.toContainText(/· saved/);
    database.again();
    up = true;
    await saved(idle);
    await expect(step(idle, 1)).toContainText('late.pdf');
    await idle.reload();
    await expect(title(idle)).toHaveValue('Made while it was away');
    await expect(page.locator('a.file').first()).toBeVisible({ timeout: 90_000 });
    expect(running.every(({ exitCode, signalCode }) => exitCode === null && signalCode === null)).toBe(true);
  });

  test('workers stopped for longer than silence lasts, and fenced processes killed: every file once, every output made', async ({
    page,
  }) => {
    await newJob(page, folder.url);
    const workers = () =>
      folder.programs.filter(
        ({ spawnargs, exitCode }) => exitCode === null && /worker.main/.test(spawnargs.join()),
      );
    const stopped = workers();
    for (const worker of stopped) worker.kill('SIGSTOP');
    await takeIn(page, pdf('one.pdf', await markedPdf(40)), pdf('two.pdf', await markedPdf(30)));
    await page.waitForTimeout(1000);
    const other = folder.startWorker();
    await page.waitForTimeout(2000);
    other.kill('SIGSTOP');
    await page.waitForTimeout(SILENT_MS);
    for (const worker of [...stopped, other]) worker.kill('SIGCONT');
    await expect(step(page, 2)).toContainText('two.pdf');
    await page.waitForTimeout(3000);
    await expect(page.getByRole('complementary', { name: 'Docket' }).locator('li')).toHaveCount(2);
    await go(page, 'Hand over');
    await page.getByRole('button', { name: 'Make reading-order PDF' }).click();
    const children = () =>
      workers().flatMap(({ pid }) =>
        spawnSync('pgrep', ['-P', String(pid)], { encoding: 'utf8' })
          .stdout.split('\n')
          .filter(Boolean),
      );
    await expect.poll(() => children().length, { intervals: [20] }).toBeGreaterThan(0);
    for (const child of children()) process.kill(Number(child), 'SIGKILL');
    await expect(page.locator('a.file').first()).toBeVisible();
  });

  test('the web server killed: what is changed meanwhile is kept, also over closing the window, and sent when it is back', async ({
    page,
  }) => {
    await newJob(page, folder.url);
    await rename(page, 'Before');
    await saved(page);
    const web = folder.programs.find(({ spawnargs }) => spawnargs.includes('build/index.js'))!;
    web.kill('SIGKILL');
    await expect(standing(page)).toContainText('does not answer', { timeout: 3000 });
    await rename(page, 'While it was dead');
    await expect(standing(page)).toContainText('Not saved yet');
    const address = page.url();
    page.on('dialog', (dialog) => void dialog.accept());
    await page.goto('about:blank');
    folder.programs.splice(folder.programs.indexOf(web), 1);
    await folder.runWeb();
    await page.goto(address);
    await expect(title(page)).toHaveValue('While it was dead');
    await expect(page.getByRole('alert')).toContainText('is on the docket now');
    await expect
      .poll(
        async () =>
          (
            await folder.query<{ title: string }>(
              "select summary->>'title' as title from job order by changed_at desc limit 1",
            )
          )[0]!.title,
      )
      .toBe('While it was dead');
  });
});

test.describe('files that come', () => {
  let folder: Folder;
  test.beforeAll(async () => void (folder = await Folder.start()));
  test.afterAll(() => folder.kill('SIGTERM'));

  test('a line cut twice, a file without an ending, one that is too large; thirty uploads that stand still hold up nobody', async ({
    page,
  }) => {
    await newJob(page, folder.url);
    let cuts = 0;
    await page.route('**/api/uploads/*', (route) =>
      route.request().method() === 'PATCH' && cuts++ < 2 ? route.abort('connectionreset') : route.continue(),
    );
    await takeIn(page, { name: 'no-ending', buffer: Buffer.from(await markedPdf(3)), mimeType: '' } as never);
    await expect(step(page, 1)).toContainText('no-ending');
    expect(cuts).toBeGreaterThan(2);
    await go(page, 'Pages');
    await expect(tile(page, 3)).toBeVisible();
    await go(page, 'Take in');
    const large = join(mkdtempSync(join(tmpdir(), 'folder-large-')), 'large.pdf');
    const file = openSync(large, 'w');
    ftruncateSync(file, 1100 * 2 ** 20);
    closeSync(file);
    let sent = 0;
    page.on('request', (request) => void (request.url().includes('/api/uploads') && sent++));
    await page.locator('.slip input[type=file]').setInputFiles(large);
    const told = page.getByRole('list', { name: 'Files on their way in' });
    await expect(told).toContainText('larger than 1024 MB');
    expect(sent).toBe(0);

    // PostgreSQL's own word for it (SQLSTATE 53100), also for a file of several pieces.
    await folder.query(
      `create function full_disk() returns trigger language plpgsql as $$
       begin raise exception 'could not extend file: No space left on device' using errcode = '53100'; end $$;
       create trigger full_disk before insert on blob_chunk for each row execute function full_disk()`,
    );
    await takeIn(page, pdf('full.pdf', Buffer.concat([await markedPdf(1), Buffer.alloc(6 << 20)])));
    await expect(told).toContainText('The disk is full');
    await folder.query('drop function full_disk cascade');

    const job = page.url().split('/').at(-2)!;
    const sockets = Array.from({ length: 30 }, () => {
      const socket = connect(folder.port, '127.0.0.1');
      socket.on('error', () => undefined);
      socket.write(
        `POST /api/jobs/${job}/intakes?name=stands.pdf HTTP/1.1\r\nHost: 127.0.0.1:${folder.port}\r\nContent-Type: application/pdf\r\nContent-Length: 5000000\r\n\r\n%PDF-1.7\n`,
      );
      return socket;
    });
    await page.waitForTimeout(500);
    for (let n = 0; n < 5; n++)
      expect((await fetch(`${folder.url}/api/jobs`, { signal: AbortSignal.timeout(5000) })).ok).toBe(true);
    for (const socket of sockets) socket.destroy();
    await expect
      .poll(async () => (await folder.query('select from blob where sha256 is null')).length)
      .toBe(0);
  });

  test('a job of a newer Folder is shown as such, can be downloaded and removed, and harms no other', async ({
    page,
  }) => {
    await newJob(page, folder.url);
    await rename(page, 'From the future');
    await saved(page);
    const address = page.url();
    await folder.query(
      `update docket_state set docket = (docket::jsonb || '{"version": 7}')::json where job_id = '${address.split('/').at(-2)!}'`,
    );
    await page.goto(folder.url);
    await page
      .getByRole('listitem')
      .filter({ hasText: 'made by a newer Folder' })
      .getByRole('link', { name: /Open/ })
      .click();
    await expect(page.locator('main')).toContainText('written by a newer Folder (its docket says version 7)');
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: 'Download its docket' }).click(),
    ]);
    expect(download.suggestedFilename()).toBe('docket.json');
    await page.getByRole('button', { name: 'Delete this job' }).click();
    await page.getByRole('button', { name: 'Delete', exact: true }).click();
    await expect(page.getByRole('button', { name: 'New job' })).toBeVisible();
    await expect(page.getByText('From the future')).toBeHidden();
  });

  test('a job goes out as a file and comes in again; work that failed is tried again', async ({ page }) => {
    await newJob(page, folder.url);
    await takeIn(page, pdf('guide.pdf', await markedPdf(4)));
    await expect(step(page, 1)).toContainText('guide.pdf');
    await rename(page, 'Line guide');
    await saved(page);
    await page.goto(folder.url);
    const card = page.getByRole('listitem').filter({ has: page.getByText('Line guide', { exact: true }) });
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      card.getByRole('link', { name: 'Save as file' }).click(),
    ]);
    const path = await download.path();
    await card.getByRole('button', { name: 'Delete' }).click();
    await card.getByRole('button', { name: 'Delete' }).click();
    await expect(card).toBeHidden();
    await page
      .locator('header input[type=file]')
      .setInputFiles({ name: 'job.zip', mimeType: 'application/zip', buffer: readFileSync(path) });
    await expect(title(page)).toHaveValue('Line guide');
    await go(page, 'Pages');
    await expect(tile(page, 4)).toBeVisible();
    await go(page, 'Hand over');
    await page.getByRole('button', { name: 'Make reading-order PDF' }).click();
    await expect(page.locator('a.file').first()).toBeVisible();
    await folder.query(
      `update output set state = 'failed', trouble = '{"code": "stopped-early"}'; delete from output_file`,
    );
    await page.goto(`${folder.url}/work`);
    const row = page.getByRole('row', { name: /Line guide/ });
    await expect(row).toContainText('failed');
    await row.getByRole('button', { name: 'Try again' }).click();
    await expect(row).toContainText('done');
  });
});

test.describe('the doors', () => {
  let folder: Folder;
  let foreign: Server;
  let browser: Browser;
  test.beforeAll(async () => {
    folder = await Folder.start();
    browser = await browserFor('*.example');
    foreign = createServer((_, answer) =>
      answer.setHeader('content-type', 'text/html').end('<h1>Elsewhere</h1>'),
    );
    await new Promise<void>((done) => foreign.listen(0, '127.0.0.1', done));
  });
  test.afterAll(async () => {
    await browser.close();
    foreign.close();
    await folder.kill('SIGTERM');
  });

  test('a foreign page makes, reads, deletes and frames nothing; nor does one whose name was pointed here', async () => {
    const page = await browser.newPage();
    const count = async () => (await folder.query('select from job')).length;
    await page.goto(`http://evil.example:${(foreign.address() as AddressInfo).port}/`);
    const tried = await page.evaluate(async (url) => {
      const ask = (method: string, more: RequestInit) =>
        fetch(`${url}/api/jobs`, { method, ...more }).then(
          async (answer) => `${answer.type} ${answer.status}`,
          () => 'refused',
        );
      return [
        await ask('POST', { mode: 'no-cors' }),
        await ask('POST', { mode: 'no-cors', body: '{}' }),
        await ask('POST', { mode: 'no-cors', body: new URLSearchParams({ a: 'b' }) }),
        await ask('POST', { headers: { 'content-type': 'application/json' }, body: '{}' }),
        await ask('GET', {}),
      ];
    }, folder.url);
    expect(tried.slice(3)).toEqual(['refused', 'refused']);
    expect(await count()).toBe(0);
    await page.setContent(`<iframe src="${folder.url}/"></iframe>`);
    await page.waitForTimeout(1000);
    const framed = page.frames().find((frame) => frame !== page.mainFrame());
    expect(await framed?.getByRole('button', { name: 'New job' }).count()).toBe(0);
    const rebound = await page.goto(`http://rebound.example:${folder.port}/`);
    expect(rebound!.status()).toBe(421);
    // What was answered may not even ask: it is no page.
    const there = await page.evaluate(() =>
      fetch('/api/jobs', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: '{}',
      }).then(
        ({ status }) => status,
        () => 'refused',
      ),
    );
    expect([421, 'refused']).toContain(there);
    expect(await count()).toBe(0);
    for (const path of ['/', '/api/jobs', '/api/sources/x', '/healthz']) {
      const { headers } = await fetch(folder.url + path);
      expect(headers.get('x-content-type-options')).toBe('nosniff');
      expect(headers.get('content-security-policy')).toContain("frame-ancestors 'none'");
    }
    // From Folder itself all goes on.
    await newJob(page, folder.url);
    expect(await count()).toBe(1);
  });
});

test.describe('where people sign in', () => {
  const PASSWORD = 'moor lantern kettle nine';
  let folder: Folder;
  let browser: Browser;
  let url: string;
  const user = (...words: string[]) =>
    spawnSync(process.execPath, ['--import', 'tsx', 'scripts/user.ts', ...words], {
      input: `${PASSWORD}\n`,
      encoding: 'utf8',
      env: { ...process.env, DATABASE_URL: folder.databaseUrl },
    });
  test.beforeAll(async () => {
    folder = await Folder.start({ named: 'folder.example' });
    url = `http://folder.example:${folder.port}`;
    browser = await browserFor('folder.example');
  });
  test.afterAll(async () => {
    await browser.close();
    await folder.kill('SIGTERM');
  });
  async function signIn(page: Page, name: string, password = PASSWORD): Promise<void> {
    await page.getByLabel('Name').fill(name);
    await page.getByLabel('Password').fill(password);
    await page.getByRole('button', { name: 'Sign in' }).click();
  }
  const as = async (name: string): Promise<Page> => {
    const page = await (await browser.newContext()).newPage();
    await page.goto(`${url}/`);
    await signIn(page, name);
    await expect(page.getByRole('button', { name: 'New job' })).toBeVisible();
    return page;
  };

  test('nobody gets in without an account; wrong passwords are slowed down; who does what is told; sessions end, and lose nothing', async () => {
    for (const name of ['Ada', 'Bert']) expect(user('add', name).stdout).toContain('can sign in now');
    expect(user('list').stdout).toMatch(/Ada[\s\S]*Bert/);
    const page = await (await browser.newContext()).newPage();
    await page.goto(`${url}/work`);
    await expect(page).toHaveURL(`${url}/sign-in?to=%2Fwork`);
    for (const path of ['/api/jobs', '/api/work', '/api/recipes'])
      expect(await page.evaluate((p) => fetch(p).then(({ status }) => status), path)).toBe(401);
    for (let n = 0; n < 5; n++) {
      await signIn(page, 'Bert', 'not the right one at all');
      await expect(page.getByRole('alert')).toContainText('wrong');
      await page.getByLabel('Name').fill('');
    }
    await signIn(page, 'Bert');
    await expect(page.getByRole('alert')).toContainText('tried too often');
    await folder.query('delete from sign_in_failure');
    await signIn(page, 'Ada');
    await expect(page).toHaveURL(`${url}/work`);
    const [cookie] = await page.context().cookies();
    expect(cookie).toMatchObject({ httpOnly: true, sameSite: 'Strict' });

    await newJob(page, url);
    await rename(page, 'Ours');
    await saved(page);
    const bert = await as('Bert');
    await bert.getByRole('link', { name: 'Open Ours' }).click();
    await expect(standing(bert)).toContainText('saved by Ada');
    await expect(standing(page)).toContainText('Bert is here too', { timeout: 3000 });
    await rename(bert, 'Theirs');
    await expect(title(page)).toHaveValue('Theirs', { timeout: 3000 });
    expect(await folder.query('select by from docket_state order by seq desc limit 1')).toEqual([
      { by: 'Bert' },
    ]);

    await folder.query("update session set seen_at = now() - interval '1 day' where person = 'Ada'");
    await expect(standing(page)).toContainText('signed out', { timeout: 4000 });
    await rename(page, 'While signed out');
    const again = await page.context().newPage();
    await again.goto(`${url}/`);
    await signIn(again, 'Ada');
    await expect(standing(page)).toContainText('saved', { timeout: 10_000 });
    await expect(title(bert)).toHaveValue('While signed out', { timeout: 4000 });

    await again.goto(`${url}/`);
    await again.getByRole('button', { name: 'Sign out' }).click();
    await expect(again).toHaveURL(`${url}/sign-in`);
    await again.goto(`${url}/`);
    await expect(again).toHaveURL(/sign-in/);
    expect(user('remove', 'bert').stdout).toContain('can no longer sign in');
    await bert.goto(`${url}/`);
    await expect(bert).toHaveURL(/sign-in/);
  });
});
