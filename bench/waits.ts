import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { go, newJob, step } from '../e2e/bench';
import { Folder } from '../e2e/folder';
import { CHROMIUM } from '../tests/chromium';
import { markedPdf } from '../tests/outside';
import { dismissStandby, keepReady, runInFence } from '../src/lib/server/fence';
import { openToFence } from '../src/lib/server/fenceUser';
import { heavyFile, median, textFile } from './files';

/*
 * What a person waits for, from the click to what was wanted, in Chromium on this machine: medians of seven, all in one run,
 * beside qpdf and mutool on the same files, to know the machine by. After npm run build. Words behind the command choose rows:
 * click, drop, pictures, list, survey, idle.
 */

process.env.FOLDER_BUILT = '1';
const TIMES = Number(process.env.TIMES ?? 7);
const asked = process.argv.slice(2);
const isAsked = (row: string) => !asked.length || asked.includes(row);

const { startPostgres } = (await import('../scripts/lib/postgres.mjs' as string)) as {
  startPostgres: (name: string) => Promise<{ url: string }>;
};
const { url: server } = await startPostgres('test-postgres');
const place = mkdtempSync(join(tmpdir(), 'folder-waits-'));
await openToFence(place);

interface Row {
  what: string;
  ms: number[];
  wanted: number;
  /** What the same takes a tool that does only the core of it, in ms. */
  beside?: Record<string, number>;
}
const rows: Row[] = [];
const say = ({ what, ms, wanted, beside = {} }: Row): void => {
  rows.push({ what, ms, wanted, beside });
  const sorted = [...ms].sort((a, b) => a - b);
  const others = Object.entries(beside).map(([tool, took]) => `${tool} ${Math.round(took)} ms`);
  console.log(
    `${what}: median ${Math.round(median([...ms]))} ms (${Math.round(sorted[0]!)} to ${Math.round(sorted.at(-1)!)}), wanted ${wanted} ms${others.length ? `; ${others.join(', ')}` : ''}`,
  );
};
const timed = async (work: () => unknown): Promise<number> => {
  const from = performance.now();
  await work();
  return performance.now() - from;
};
async function often(work: () => Promise<number>, times = TIMES): Promise<number[]> {
  const ms: number[] = [];
  for (let n = 0; n < times; n++) ms.push(await work());
  return ms;
}
const tool = async (...[program, ...args]: string[]): Promise<number> =>
  median(await often(() => timed(() => spawnSync(program!, args)), 3));
async function besides(file: string): Promise<Record<string, number>> {
  const out = join(place, 'out.pdf');
  return {
    'qpdf in out': await tool('qpdf', file, out),
    'mutool clean': await tool('mutool', 'clean', file, out),
  };
}

const folder = await Folder.start({ server, ready: true });
const browser = await chromium.launch(CHROMIUM);
/** A window that has drawn nothing before. */
async function freshWindow(): Promise<Page> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  // What runs these lines gives functions their names by a call of its own.
  await context.addInitScript('globalThis.__name = (named) => named');
  return context.newPage();
}
const page = await freshWindow();

/** Watches the page itself, so that nothing is asked of it meanwhile: resolves with the ms until there are so many of something. */
const until = (of: Page, selector: string, count: number, click?: string): Promise<number> =>
  of.evaluate(
    ([seen, wanted, press]) =>
      new Promise<number>((done) => {
        const from = performance.now();
        const look = () => {
          if (document.querySelectorAll(seen).length < wanted) return requestAnimationFrame(look);
          done(performance.now() - from);
        };
        if (press)
          [...document.querySelectorAll('button')]
            .find((button) => button.textContent.trim() === press)!
            .click();
        look();
      }),
    [selector, count, click] as const,
  );

/** A new job with one file, as it is dropped; the ms until it is on the docket. */
async function drop(file: string): Promise<number> {
  await newJob(page, folder.url);
  const there = until(page, '[aria-label=Docket] li', 1);
  await page.locator('.slip input[type=file]').setInputFiles(file);
  return there;
}
/** The sources are measured: nothing else is going on. */
async function quiet(): Promise<void> {
  for (;;) {
    const [{ n } = { n: 0 }] = await folder.query<{ n: number }>(
      "select (select count(*) from measure where state in ('waiting', 'working'))::int + (select count(*) from output where state in ('waiting', 'working'))::int as n",
    );
    if (!n) return;
    await new Promise((done) => setTimeout(done, 200));
  }
}
/** From the click on a card of Hand over to the link of its file; what was made goes again. */
async function click(button: string): Promise<number[]> {
  await go(page, 'Hand over');
  await page.getByRole('button', { name: button, exact: true }).waitFor();
  return often(async () => {
    const ms = await until(page, 'a.file', 1, button);
    await page.locator('article').getByRole('button', { name: 'Delete' }).click();
    await page.locator('a.file').waitFor({ state: 'detached' });
    // What stands by has time to start again, as between two clicks of a person.
    await page.waitForTimeout(3000);
    return ms;
  });
}

try {
  const small = join(place, 'small.pdf');
  writeFileSync(small, await markedPdf(16, { width: 420, height: 595 }));
  const long = isAsked('click') || isAsked('drop') ? await textFile(2000, place) : '';
  const heavy = isAsked('click') || isAsked('drop') || isAsked('pictures') ? await heavyFile(106, place) : '';
  if (heavy) console.log(`heavy file: ${Math.round(statSync(heavy).size / 1e6)} MB`);

  if (isAsked('click')) {
    for (const [file, button, wanted, what] of [
      [small, 'Make sheet PDF', 300, '16 pages, sheets that are proved, click to file'],
      [small, 'Make reading-order PDF', 300, '16 pages in reading order, click to file'],
      [long, 'Make reading-order PDF', 800, '2,000 pages, click to file'],
      [heavy, 'Make reading-order PDF', 2000, 'large file, click to file'],
    ] as const) {
      await drop(file);
      await step(page, 1).waitFor();
      await quiet();
      say({ what, ms: await click(button), wanted, beside: await besides(file) });
    }
  }
  if (isAsked('drop')) {
    say({ what: 'large file dropped, to on the docket', ms: await often(() => drop(heavy)), wanted: 2500 });
    const stops: number[] = [];
    for (let n = 0; n < TIMES; n++) {
      await newJob(page, folder.url);
      await page.evaluate(() => {
        const tasks: number[] = [0];
        Object.assign(globalThis, { tasks });
        new PerformanceObserver((list) =>
          tasks.push(...list.getEntries().map(({ duration }) => duration)),
        ).observe({ type: 'longtask' });
      });
      const there = until(page, '[aria-label=Docket] li', 1);
      await page.locator('.slip input[type=file]').setInputFiles(long);
      await there;
      await page.waitForTimeout(3000);
      stops.push(
        await page.evaluate(() => Math.max(...(globalThis as unknown as { tasks: number[] }).tasks)),
      );
    }
    say({ what: '2,000 pages dropped: longest stop of the tab', ms: stops, wanted: 100 });
  }
  if (isAsked('pictures')) {
    const pages = await textFile(128, place);
    for (const [file, count, wanted, what] of [
      [heavy, 30, 1000, 'first 30 pictures of the large file'],
      [pages, 128, 1000, '128 pages drawn on Pages'],
    ] as const) {
      await drop(file);
      await step(page, 1).waitFor();
      await quiet();
      const address = page.url().replace(/\/[\w-]+$/, '/pages');
      const ms = await often(async () => {
        const fresh = await freshWindow();
        await fresh.goto(address, { waitUntil: 'domcontentloaded' });
        await fresh.locator('[role=listbox]').waitFor();
        await fresh.getByRole('button', { name: 'All', exact: true }).click();
        const took = await until(fresh, 'image[data-drawn]', count);
        await fresh.context().close();
        return took;
      });
      say({ what, ms, wanted });
    }
  }
  if (isAsked('list')) {
    await drop(small);
    await step(page, 1).waitFor();
    await folder.query(
      `insert into job (${await columns('job')}) select ${await columns('job', 'gen_random_uuid()')} from job, generate_series(1, 5000) order by created_at limit 5000`,
    );
    let size = 0;
    const ms = await often(() =>
      timed(async () => (size = (await (await fetch(folder.url)).arrayBuffer()).byteLength)),
    );
    say({ what: `list of 5,000 jobs, ${Math.round(size / 1000)} kB`, ms, wanted: 30 });
  }
  if (isAsked('survey')) {
    const file = await textFile(2415, place);
    // In a process that stands by, as a worker has it.
    keepReady('surveyFile');
    await new Promise((done) => setTimeout(done, 5000));
    const task = { file, out: join(place, 'survey.json'), pdf: join(place, 'plain.pdf') };
    const ms = await often(async () => {
      const took = await timed(() => runInFence('surveyFile', task, { seconds: 60, mb: 2048 }));
      await new Promise((done) => setTimeout(done, 3000));
      return took;
    });
    dismissStandby();
    say({
      what: 'survey of 2,415 pages',
      ms,
      wanted: 1000,
      beside: {
        'mutool pages': await tool('mutool', 'pages', file),
        'pdfinfo -box': await tool('pdfinfo', '-box', '-l', '2415', file),
      },
    });
  }
  if (isAsked('idle')) {
    // As npm start has it on two cores: two workers. What stands by for somebody leaves a minute after the last one.
    folder.startWorker();
    await page.close();
    await new Promise((done) => setTimeout(done, 90_000));
    const before = spent();
    await new Promise((done) => setTimeout(done, 20_000));
    const { processes, mb, seconds } = spent();
    console.log(
      `Folder doing nothing: ${processes} processes, ${Math.round(mb)} MB, ${(((seconds - before.seconds) / 20) * 100).toFixed(2)} % of a core; wanted 300 MB, 0.5 %`,
    );
  }
} finally {
  await browser.close();
  await folder.kill('SIGTERM');
}
process.exit(0);

/** Columns of a table, its id made anew. */
async function columns(table: string, id = 'id'): Promise<string> {
  const found = await folder.query<{ column_name: string }>(
    `select column_name from information_schema.columns where table_name = '${table}' and table_schema = 'public' and is_generated = 'NEVER' order by ordinal_position`,
  );
  return found.map(({ column_name }) => (column_name === 'id' ? id : column_name)).join(', ');
}

/** What Folder's processes hold and have spent: their proportional memory, and their time on the processors. */
function spent(): { processes: number; mb: number; seconds: number } {
  const wanted = new Set(folder.programs.map(({ pid }) => pid!));
  const all = readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .map(Number);
  const stat = (pid: number): string[] => {
    try {
      return readFileSync(`/proc/${pid}/stat`, 'utf8')
        .replace(/^.*\) /, '')
        .split(' ');
    } catch {
      return [];
    }
  };
  for (let grown = true; grown;) {
    grown = false;
    for (const pid of all)
      if (!wanted.has(pid) && wanted.has(Number(stat(pid)[1]))) {
        wanted.add(pid);
        grown = true;
      }
  }
  let [mb, seconds, processes] = [0, 0, 0];
  for (const pid of wanted) {
    const at = stat(pid);
    if (!at.length) continue;
    processes++;
    seconds += (Number(at[11]) + Number(at[12])) / 100;
    try {
      mb += Number(/^Pss:\s+(\d+)/m.exec(readFileSync(`/proc/${pid}/smaps_rollup`, 'utf8'))![1]) / 1024;
    } catch {
      // It ended.
    }
  }
  return { processes, mb, seconds };
}
