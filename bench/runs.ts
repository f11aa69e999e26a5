/**
 * A recipe over 100 files of 40 pages that are dropped into a folder, with one worker and with two, in one run: how much
 * faster two are, and how the memory of a worker grows over the run. Run by hand: npm run build && npm run bench:runs
 */
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PDFDocument } from '@cantoo/pdf-lib';

const [FILES, PAGES] = [100, 40];
/** How much faster two workers have to be than one. */
const LEAST = 1.6;
/** Memory of a worker at the end, against a third of the way through. */
const MOST_GROWTH = 1.25;

const { startPostgres } = (await import('../scripts/lib/postgres.mjs' as string)) as {
  startPostgres: (name: string) => Promise<{ url: string; stop: () => void }>;
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
await saveRecipe({
  recipe: 1,
  name: 'Bench',
  steps: [{ id: 'b', kind: 'bleed', pages: 'all', head: 8, foot: 8, spine: 8, fore: 8 }],
  outputs: [{ kind: 'pages', crop: 'trim' }],
});
await addDropFolder({ name: 'in', recipe: 'Bench' });

const start = (): ChildProcess =>
  spawn(process.execPath, ['build/tools/worker/main.mjs'], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, FOLDER_BUILT: '1' },
  });
const memory = ({ pid }: ChildProcess): number =>
  (Number(readFileSync(`/proc/${pid}/statm`, 'utf8').split(' ')[1]) * 4096) / 1024 / 1024;
const wait = (ms: number) => new Promise((done) => setTimeout(done, ms));

/** Seconds that so many workers take for all files, and how a worker's memory grew. */
async function seconds(count: number, round: string): Promise<{ seconds: number; growth: number }> {
  for (let n = 0; n < FILES; n++) {
    const document = await PDFDocument.create();
    for (let page = 0; page < PAGES; page++)
      document.addPage([420, 595]).drawText(`${round} ${n} ${page}`, { x: 50, y: 300 });
    writeFileSync(join(drops, 'in', `.${round}-${n}.pdf`), await document.save());
  }
  const workers = Array.from({ length: count }, start);
  // What stands by for single outputs gets ready first, and what the round before left to be measured is.
  await wait(30_000);
  for (let left = 1; left;) {
    await wait(1000);
    const { rows } = await db().query<{ left: number }>(
      "select count(*)::integer as left from source where measure in ('waiting', 'measuring')",
    );
    left = rows[0]!.left;
  }
  const began = performance.now();
  const { renameSync } = await import('node:fs');
  for (let n = 0; n < FILES; n++)
    renameSync(join(drops, 'in', `.${round}-${n}.pdf`), join(drops, 'in', `${round}-${n}.pdf`));
  let third = 0;
  for (;;) {
    await wait(100);
    const { rows } = await db().query<{ ended: string; failed: string }>(
      "select count(*) filter (where state in ('done', 'failed')) as ended, count(*) filter (where state = 'failed') as failed from run where file_name like $1",
      [`${round}-%`],
    );
    if (Number(rows[0]!.failed)) throw new Error('a run failed');
    const ended = Number(rows[0]!.ended);
    if (!third && ended >= FILES / 3) third = memory(workers[0]!);
    if (ended === FILES) break;
  }
  const took = (performance.now() - began) / 1000;
  const growth = memory(workers[0]!) / third;
  await Promise.all(workers.map((worker) => new Promise((gone) => worker.once('exit', gone).kill())));
  return { seconds: took, growth };
}

try {
  const one = await seconds(1, 'one');
  const two = await seconds(2, 'two');
  const ratio = one.seconds / two.seconds;
  console.log(
    `${FILES} files of ${PAGES} pages: ${one.seconds.toFixed(1)} s with one worker, ${two.seconds.toFixed(1)} s with two: ${ratio.toFixed(2)} × faster; ${LEAST} is asked for`,
  );
  console.log(
    `memory of a worker from a third of the run to its end: ${one.growth.toFixed(2)} ×, ${two.growth.toFixed(2)} ×; ${MOST_GROWTH} is allowed`,
  );
  if (ratio < LEAST || Math.max(one.growth, two.growth) > MOST_GROWTH) process.exitCode = 1;
} finally {
  await closeDb();
  database.stop();
  rmSync(drops, { recursive: true, force: true });
}
