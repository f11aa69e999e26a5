/**
 * A recipe over 100 files of 40 pages that are dropped into a folder, with one worker and with two, in one run: how much
 * faster two are, and how the memory of a worker and of what works for it grows over the run. With pages that only get a
 * bleed, with booklets that get bleed and folios and go out as pages, as sheets and with a ticket, and with scans of booklets
 * that are read and put in order, as the demo's recipe does. Each worker has worked files before, as workers run for days.
 * One and two take turns, and the median of the pairs counts: a machine that is shared changes its speed. Beside them stands
 * how much more two processes that share nothing get done than one, which is all that this machine gives just then.
 * Run by hand: npm run build && npm run bench:runs [ROUNDS] [plain|booklets|scans]
 */
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PDFDocument, TextRenderingMode } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { SCANS_RECIPE } from '../demo/jobs';
import { recipeSchema, type Recipe } from '../src/lib/core/docket/recipe';
import { PLAIN_SCHEMES } from '../src/lib/core/sheets/schemes';
import { BLEED, FOLIOS } from '../src/lib/server/fenced/samples';
import { median } from './files';

const [FILES, PAGES, ROUNDS] = [100, 40, Number(process.argv[2] ?? 3)];
/** Files that each worker has worked before: workers run for days, and after 30 the engine has not compiled all of it. */
const BEFORE = 100;
const [, , , only] = process.argv;
/** How much faster two workers have to be than one. */
const LEAST = 1.8;
/** Most memory in the last third of the run, against the most in the third before: by then it is warm. */
const MOST_GROWTH = 1.25;

const { startPostgres } = (await import('../scripts/lib/postgres.mjs' as string)) as {
  startPostgres: (name: string) => Promise<{ url: string; stop: () => void }>;
};
const { WORKER, workerEnv } = (await import('../scripts/lib/worker.mjs' as string)) as {
  WORKER: string[];
  workerEnv: (n: number) => Record<string, string>;
};
const drops = mkdtempSync(join(tmpdir(), 'folder-drops-'));
const database = await startPostgres('bench-postgres');
const url = new URL(database.url);
url.pathname = '/bench_runs';
const { default: pg } = await import('pg');
const admin = new pg.Client({ connectionString: database.url });
await admin.connect();
await admin.query('drop database if exists bench_runs with (force)');
await admin.query('create database bench_runs');
await admin.end();
process.env.DATABASE_URL = url.href;
process.env.FOLDER_DROPS = drops;
const { migrate } = await import('../src/lib/server/migrate');
const { db, closeDb } = await import('../src/lib/server/db');
const { addDropFolder } = await import('../src/lib/server/dropFolders');
const { saveRecipe } = await import('../src/lib/server/recipes');
await migrate();

interface Kind {
  name: string;
  recipe: Recipe;
  /** A file like no other. */
  draw: (mark: string) => Promise<Uint8Array>;
}

async function drawPages(mark: string): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  for (let page = 0; page < PAGES; page++)
    document.addPage([420, 595]).drawText(`${mark} ${page}`, { x: 50, y: 300 });
  return document.save();
}
const PLAIN: Kind = {
  name: 'pages that get a bleed',
  recipe: recipeSchema.parse({
    recipe: 1,
    name: 'plain',
    steps: [BLEED],
    outputs: [{ kind: 'pages', crop: 'trim' }],
  }),
  draw: drawPages,
};
const BOOKLETS: Kind = {
  name: 'booklets made ready for the press',
  recipe: recipeSchema.parse({
    recipe: 1,
    name: 'booklets',
    steps: [BLEED, FOLIOS],
    scheme: PLAIN_SCHEMES.stitched,
    outputs: [{ kind: 'pages', crop: 'trim' }, { kind: 'sheets' }, { kind: 'ticket' }],
  }),
  draw: drawPages,
};

/** A7 pages, two to a scan, at 100 ppi. */
const [WIDTH, HEIGHT, PPI] = [420, 298, 100];
const pixels = (points: number) => Math.round((points / 72) * PPI);
const picture = await sharp({
  create: {
    width: pixels(WIDTH),
    height: pixels(HEIGHT),
    channels: 3,
    background: '#ece2ca',
    noise: { type: 'gaussian', mean: 220, sigma: 12 },
  },
})
  .jpeg({ quality: 70 })
  .toBuffer();
const SCANS: Kind = {
  name: 'scans of booklets put in reading order',
  recipe: { ...SCANS_RECIPE, name: 'scans' },
  async draw(mark) {
    const document = await PDFDocument.create();
    const image = await document.embedJpg(picture);
    const font = await document.embedFont('Helvetica');
    for (let side = 0; side < PAGES / 2; side++) {
      const page = document.addPage([WIDTH, HEIGHT]);
      page.drawImage(image, { x: 0, y: 0, width: WIDTH, height: HEIGHT });
      const pair = [PAGES - side, side + 1];
      if (side % 2) pair.reverse();
      for (const [half, number] of pair.entries())
        page.drawText(String(number), {
          x: (half + 0.5) * (WIDTH / 2) - 4,
          y: 20,
          size: 8,
          font,
          renderMode: TextRenderingMode.Invisible,
        });
      page.drawText(mark, { x: 30, y: 200, size: 10, font });
    }
    return document.save();
  },
};

const start = (_: unknown, n: number): ChildProcess =>
  spawn(process.execPath, WORKER, {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, ...workerEnv(n), FOLDER_BUILT: '1' },
  });
const PAGE_MB = 4096 / 1024 / 1024;
/** What a file under /proc of a process says; nothing once it is gone. */
const told = (pid: string, what: string): string => {
  try {
    return readFileSync(`/proc/${pid}/${what}`, 'utf8');
  } catch {
    return '';
  }
};
/** Resident megabytes of a worker and of the processes that it started. */
const memory = ({ pid }: ChildProcess): number =>
  readdirSync('/proc')
    .filter((name) => name === String(pid) || told(name, 'status').includes(`\nPPid:\t${pid}\n`))
    .reduce((mb, name) => mb + Number(told(name, 'statm').split(' ')[1] ?? 0) * PAGE_MB, 0);
const wait = (ms: number) => new Promise((done) => setTimeout(done, ms));
const [HZ, USER, NICE, SYSTEM, STOLEN] = [100, 1, 2, 3, 8];
const spent = (column: number) =>
  Number(readFileSync('/proc/stat', 'utf8').split('\n', 1)[0]!.split(/\s+/)[column]) / HZ;
/** Seconds that other machines on the same host took from this one's cores. */
const stolen = () => spent(STOLEN);
/** Seconds that programs kept the cores busy. */
const busy = () => spent(USER) + spent(NICE) + spent(SYSTEM);

/** Objects made, written and read: what files are worked with, without any file. */
const YARDSTICK = `let made = [];
for (let n = 0; n < 60; n++) {
  made = Array.from({ length: 20000 }, (_, at) => ({ at, box: [0, 0, at, n], name: 'page ' + at }));
  made = JSON.parse(JSON.stringify(made)).map((page) => page.box.length + page.name.length);
}`;
const yardstick = () =>
  new Promise((done) =>
    spawn(process.execPath, ['--single-threaded', '-e', YARDSTICK], { stdio: 'ignore' }).once('exit', done),
  );
/** How much more two processes that share nothing get done in a time than one. */
async function machineGives(): Promise<number> {
  const time = async (count: number) => {
    const began = performance.now();
    await Promise.all(Array.from({ length: count }, yardstick));
    return performance.now() - began;
  };
  const alone = await time(1);
  return (2 * alone) / (await time(2));
}

interface Round {
  seconds: number;
  growth: number;
}

/** Draws so many files where nobody sees them yet. */
async function drawFiles({ recipe, draw }: Kind, mark: string, count: number): Promise<void> {
  for (let n = 0; n < count; n++)
    writeFileSync(join(drops, recipe.name, `.${mark}-${n}.pdf`), await draw(`${mark} ${n}`));
}

/** What was worked before and is left to be measured, nobody waits for here. */
const leaveUnmeasured = () => db().query("update measure set state = 'done' where state = 'waiting'");

/** Drops drawn files all at once and waits until they are worked, looking on. The seconds from when the first was found complete. */
async function drop(
  { recipe }: Kind,
  mark: string,
  count: number,
  lookOn?: (ended: number) => void,
): Promise<number> {
  await leaveUnmeasured();
  const place = (name: string) => join(drops, recipe.name, name);
  for (let n = 0; n < count; n++) renameSync(place(`.${mark}-${n}.pdf`), place(`${mark}-${n}.pdf`));
  for (;;) {
    await wait(100);
    const { rows } = await db().query<{ ended: number; failed: number; seconds: number }>(
      `select count(*) filter (where state in ('done', 'failed'))::integer as ended, count(*) filter (where state = 'failed')::integer as failed,
         extract(epoch from max(finished_at) - min(created_at))::float8 as seconds from run where file_name like $1`,
      [`${mark}-%`],
    );
    const { ended, failed, seconds } = rows[0]!;
    if (failed) throw new Error('a run failed');
    lookOn?.(ended);
    if (ended === count) return seconds;
  }
}

/** How long so many workers take for all files, and how a worker's memory grew. */
async function round(kind: Kind, count: number, mark: string): Promise<Round> {
  await drawFiles(kind, `before-${mark}`, BEFORE * count);
  await drawFiles(kind, mark, FILES);
  await leaveUnmeasured();
  const workers = Array.from({ length: count }, start);
  // What stands by gets ready first.
  await wait(45_000);
  await drop(kind, `before-${mark}`, BEFORE * count);
  const [before, busyBefore] = [stolen(), busy()];
  const memories: number[] = [];
  const seconds = await drop(kind, mark, FILES, (ended) => {
    if (ended >= FILES / 3) memories.push(memory(workers[0]!));
  });
  const [taken, worked] = [stolen() - before, busy() - busyBefore];
  const half = Math.ceil(memories.length / 2);
  const growth = Math.max(...memories.slice(half)) / Math.max(...memories.slice(0, half));
  await Promise.all(workers.map((worker) => new Promise((gone) => worker.once('exit', gone).kill())));
  console.log(
    `${kind.name}, ${count} at work: ${seconds.toFixed(1)} s, ${(worked / seconds).toFixed(2)} cores busy, ${taken.toFixed(1)} s taken by others`,
  );
  return { seconds, growth };
}

try {
  for (const kind of [PLAIN, BOOKLETS, SCANS].filter(({ recipe }) => !only || recipe.name === only)) {
    await saveRecipe(kind.recipe);
    await addDropFolder({ name: kind.recipe.name, recipe: kind.recipe.name });
    const pairs: number[] = [];
    let growth = 0;
    for (let n = 0; n < ROUNDS; n++) {
      console.log(`two processes that share nothing: ${(await machineGives()).toFixed(2)} ×`);
      const seconds: number[] = [];
      for (const count of n % 2 ? [2, 1] : [1, 2]) {
        const made = await round(kind, count, `${kind.recipe.name}-${n}-${count}`);
        seconds[count] = made.seconds;
        growth = Math.max(growth, made.growth);
      }
      pairs.push(seconds[1]! / seconds[2]!);
      console.log(`two are ${pairs.at(-1)!.toFixed(2)} × faster`);
    }
    console.log(`two processes that share nothing: ${(await machineGives()).toFixed(2)} ×`);
    const faster = median(pairs);
    console.log(
      `${FILES} files of ${PAGES} pages, ${kind.name}: two workers ${faster.toFixed(2)} × faster than one; ${LEAST} is asked for; memory in the last third at most ${growth.toFixed(2)} ×; ${MOST_GROWTH} is allowed`,
    );
    if (faster < LEAST || growth > MOST_GROWTH) process.exitCode = 1;
  }
} finally {
  await closeDb();
  database.stop();
  rmSync(drops, { recursive: true, force: true });
}
