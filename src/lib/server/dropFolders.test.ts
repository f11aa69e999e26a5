import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import * as files from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { afterAll, beforeAll, beforeEach, describe, expect, test, vi } from 'vitest';
import { ownDatabase, server } from '../../../tests/database';
import { markedPdf } from '../../../tests/outside';
import { chances, SCAN_STEPS, scanBooklet, shownOn } from '../../../tests/scanSets';
import { workOut } from '../core/checks';
import { sourcesOf } from '../core/docket/docket';
import { sweep } from './blobs';
import { db, listen } from './db';
import { addDropFolder, listDropFolders, lookIntoFolders, watchedFolders } from './dropFolders';
import { dismissStandby } from './fence';
import { BLEED } from './fenced/samples';
import { openIntakes, receive } from './intakes';
import { createJob, deleteJob, readJob } from './jobs';
import { listJobs } from './jobList';
import { presentIn } from './presence';
import { WAKE } from './queue';
import { listOutputs, orderOutput } from './outputs';
import { answer } from './problem';
import { saveRecipe } from './recipes';
import { listRuns } from './runs';
import * as sources from './sources';
import { outputWork } from './worker/output';
import { makeRuns } from './worker/run';
import { surveyWork } from './worker/survey';
import { workOn } from './worker/workAt';

let root = '';

/** For everything below these paths the disk is full, and nobody may write. */
let full = '';
let locked = '';
vi.mock('node:fs/promises', async (original) => {
  const real = await original<typeof files>();
  const unlessRefused =
    <A extends unknown[], R>(work: (...args: A) => Promise<R>, at: number) =>
    (...args: A): Promise<R> => {
      const below = (path: string) => path && String(args[at]).startsWith(path);
      const code = below(full) ? 'ENOSPC' : below(locked) ? 'EACCES' : undefined;
      return code ? Promise.reject(Object.assign(new Error(code), { code })) : work(...args);
    };
  return {
    ...real,
    access: unlessRefused(real.access, 0),
    mkdir: unlessRefused(real.mkdir, 0),
    mkdtemp: unlessRefused(real.mkdtemp, 0),
    copyFile: unlessRefused(real.copyFile, 1),
    writeFile: unlessRefused(real.writeFile, 0),
  };
});
vi.mock('./sources', async (original) => {
  const real = await original<typeof sources>();
  return { ...real, holdSource: vi.fn(real.holdSource) };
});

const look = async () => {
  await lookIntoFolders(await watchedFolders());
  await wait(1100);
  await lookIntoFolders(await watchedFolders());
};
const work = () => makeRuns(() => true);
const bytesOf = async function* (bytes: Uint8Array) {
  yield bytes;
};
const inside = (...path: string[]) => readdirSync(join(root, ...path)).sort();

describe.skipIf(!server)('drop folders', () => {
  let close: () => Promise<void>;
  beforeAll(async () => {
    close = await ownDatabase('drops');
    await saveRecipe({
      recipe: 1,
      name: 'Bleed',
      steps: [BLEED],
      outputs: [{ kind: 'pages', crop: 'trim' }, { kind: 'docket' }],
    });
  });
  afterAll(async () => {
    dismissStandby();
    await close();
  });
  beforeEach(async () => {
    full = locked = '';
    process.env.FOLDER_DROPS = root = mkdtempSync(join(tmpdir(), 'folder-drops-'));
    await db().query('truncate job, source, blob, drop_folder, run cascade');
  });

  test('take twenty files at a time, none before it has stopped growing', async () => {
    await addDropFolder({ name: 'desk', recipe: 'Bleed' });
    for (let n = 10; n < 35; n++) writeFileSync(join(root, 'desk', `${n}.pdf`), 'to come');
    await lookIntoFolders(await watchedFolders());
    expect(await listRuns()).toEqual([]);
    await wait(1100);
    writeFileSync(join(root, 'desk', '10.pdf'), 'still coming');
    await lookIntoFolders(await watchedFolders());
    expect(await listRuns()).toHaveLength(20);
    // It grows on, however long the look before took.
    writeFileSync(join(root, 'desk', '10.pdf'), 'still coming, and more');
    await lookIntoFolders(await watchedFolders());
    expect((await listRuns()).map(({ fileName }) => fileName).sort()).toEqual(
      Array.from({ length: 24 }, (_, n) => `${n + 11}.pdf`),
    );
    expect(inside('desk')).toEqual(['10.pdf', 'done', 'failed', 'working']);
  });

  test('wake the workers when they are made and when a file begins to wait; one with nothing in it is let be', async () => {
    const heard: unknown[] = [];
    const stop = listen(WAKE, (word) => heard.push(word));
    await expect.poll(() => heard).toEqual([undefined]);
    await addDropFolder({ name: 'desk', recipe: 'Bleed' });
    await expect.poll(() => heard).toEqual([undefined, 'folder']);
    const looked = async () => (await watchedFolders())[0]!.looked_at;
    await lookIntoFolders(await watchedFolders());
    const first = await looked();
    await lookIntoFolders(await watchedFolders());
    expect(await looked()).toEqual(first);
    // Long not looked into, or one of its places gone.
    await db().query("update drop_folder set looked_at = looked_at - interval '1 minute'");
    await lookIntoFolders(await watchedFolders());
    expect(await looked()).not.toEqual(first);
    rmSync(join(root, 'desk', 'failed'), { recursive: true });
    await look();
    expect(inside('desk')).toEqual(['done', 'failed', 'working']);
    writeFileSync(join(root, 'desk', 'a.pdf'), 'to come');
    await look();
    await expect.poll(() => heard).toEqual([undefined, 'folder', 'run']);
    const job = await createJob();
    const window = { window: job, person: null, doing: null };
    await presentIn(job, window);
    await presentIn(job, window);
    await expect.poll(() => heard).toEqual([undefined, 'folder', 'run', 'person']);
    await stop();
  });

  test('pictures in a directory are one job: a set waits for what is missing, an end mark takes it as it is, and it comes out in reading order', async () => {
    process.env.FOLDER_SET_QUIET_MS = '300';
    await saveRecipe({
      recipe: 1,
      name: 'Scans',
      steps: SCAN_STEPS,
      outputs: [{ kind: 'pages', crop: 'trim' }],
    });
    await addDropFolder({ name: 'glass', recipe: 'Scans' });
    const chance = chances(3);
    // Two upside down, one sideways.
    const turns = [0, 180, 0, 90, 0, 180, 0, 0] as const;
    const set = await scanBooklet(
      { pages: 16, numbers: 'outer', bare: true },
      'sheets',
      150,
      (n) => ({ turn: turns[n], skew: n / 2 - 2, noise: 5, beyond: 3, quality: 70 }),
      chance,
    );
    const names = set.pictures.map((_, n) => `${n % 2 ? 'back' : 'front'}-${(n >> 1) + 7}.jpg`);
    await files.mkdir(join(root, 'glass', 'rules'));
    const come = (n: number) => writeFileSync(join(root, 'glass', 'rules', names[n]!), set.pictures[n]!);
    for (const n of [0, 1, 2, 3, 4, 6, 7]) come(n);
    await look();
    expect(await listRuns()).toEqual([]);
    expect(await listDropFolders()).toMatchObject([
      { sets: [{ name: 'rules', pictures: 7, missing: ['back-9.jpg'] }] },
    ]);
    come(5);
    await look();
    expect(await listDropFolders()).toMatchObject([{ waiting: 1 }]);
    expect((await listDropFolders())[0]).not.toHaveProperty('sets');
    await work();
    const [run] = await listRuns();
    expect(run).toMatchObject({ state: 'done', fileName: 'rules' });
    const [folder] = inside('glass', 'done');
    expect(inside('glass', 'done', folder!)).toContain('rules');
    const { docket } = await readJob(run!.job!);
    const surveys = await sources.surveysOf(sourcesOf(docket));
    const { list } = workOut(docket, surveys);
    const shown = list.pages.map((page) => shownOn(page, set, Object.values(surveys)[0]!));
    expect(shown).toEqual(
      set.truth.flatMap(({ pages }) => pages).map((_, n) => ({ n: n + 1, upright: true })),
    );
    // A set that is known to end is not waited for.
    await files.mkdir(join(root, 'glass', 'odd'));
    for (const n of [0, 2, 3]) writeFileSync(join(root, 'glass', 'odd', names[n]!), set.pictures[n]!);
    writeFileSync(join(root, 'glass', 'odd', 'end'), '');
    await look();
    expect(await listDropFolders()).toMatchObject([{ waiting: 1 }]);
    // What is no picture is not swallowed: the set is refused with its name.
    await files.mkdir(join(root, 'glass', 'mixed'));
    for (const n of [0, 1]) writeFileSync(join(root, 'glass', 'mixed', names[n]!), set.pictures[n]!);
    writeFileSync(join(root, 'glass', 'mixed', 'notes.pdf'), '%PDF-1.7');
    await look();
    await work();
    const mixed = (await listRuns()).find(({ fileName }) => fileName === 'mixed');
    expect(mixed).toMatchObject({
      state: 'failed',
      trouble: { code: 'set-of-others', data: { name: 'notes.pdf' } },
    });
  });

  test('a full disk is told for its folder and holds no other up; where there is room again the file is taken', async () => {
    for (const name of ['brim', 'roomy']) {
      await addDropFolder({ name, recipe: 'Bleed' });
      writeFileSync(join(root, name, 'a.pdf'), 'to come');
    }
    full = join(root, 'brim', 'working/');
    await look();
    expect(await listDropFolders()).toMatchObject([
      { name: 'brim', trouble: { code: 'drop-full' }, waiting: 0 },
      { name: 'roomy', waiting: 1 },
    ]);
    expect(inside('brim')).toContain('a.pdf');
    full = '';
    await lookIntoFolders(await watchedFolders());
    const [brim] = await listDropFolders();
    expect(brim).toMatchObject({ waiting: 1 });
    expect(brim).not.toHaveProperty('trouble');
  });

  test('a directory that cannot be written is refused, and told where it was one before; its files wait', async () => {
    locked = join(root, 'desk');
    const refused = { trouble: { code: 'drop-unwritable', data: { name: 'desk', reason: 'EACCES' } } };
    await expect(addDropFolder({ name: 'desk', recipe: 'Bleed' })).rejects.toMatchObject(refused);
    expect(await listDropFolders()).toEqual([]);
    locked = '';
    await addDropFolder({ name: 'desk', recipe: 'Bleed' });
    writeFileSync(join(root, 'desk', 'a.pdf'), 'to come');
    locked = join(root, 'desk');
    await look();
    expect(await listDropFolders()).toMatchObject([{ ...refused, waiting: 0 }]);
    expect(inside('desk')).toContain('a.pdf');
    locked = '';
    await look();
    expect(await listDropFolders()).toMatchObject([{ waiting: 1 }]);
  });

  test('outputs that find no room beside their file fail the run, and leave nothing half-written', async () => {
    await addDropFolder({ name: 'tight', recipe: 'Bleed' });
    writeFileSync(join(root, 'tight', 'a.pdf'), await markedPdf(2));
    await look();
    const [run] = await listRuns();
    full = `${join(root, 'tight', 'working', run!.id)}/.`;
    await work();
    expect(await listRuns()).toMatchObject([{ state: 'failed', trouble: { code: 'disk-full' } }]);
    expect(inside('tight', 'working')).toEqual([]);
    expect(inside('tight', 'failed', 'a')).toEqual(['a.pdf', 'why.txt']);
    expect(readFileSync(join(root, 'tight', 'failed', 'a', 'why.txt'), 'utf8')).toContain('disk');
    expect((await db().query('select from output')).rowCount).toBe(0);
  });

  test('not even the reason finds room: the file stays until it does, and is then settled', async () => {
    await addDropFolder({ name: 'brim', recipe: 'Bleed' });
    writeFileSync(join(root, 'brim', 'bad.pdf'), 'no PDF');
    await look();
    const [run] = await listRuns();
    full = join(root, 'brim', 'working', run!.id);
    await expect(work()).rejects.toMatchObject({ code: 'ENOSPC' });
    await lookIntoFolders(await watchedFolders());
    expect(inside('brim', 'working', run!.id)).toEqual(['bad.pdf']);
    expect(await listDropFolders()).toMatchObject([{ trouble: { code: 'drop-full' } }]);
    full = '';
    await lookIntoFolders(await watchedFolders());
    expect(inside('brim', 'failed', 'bad')).toEqual(['bad.pdf', 'why.txt']);
  });

  test('what finds no room to be worked in says so: an output, a file on its way in, a run', async () => {
    await addDropFolder({ name: 'desk', recipe: 'Bleed' });
    writeFileSync(join(root, 'desk', 'a.pdf'), await markedPdf(2));
    await look();
    const job = await createJob();
    const output = await orderOutput(job, { output: { kind: 'docket' } });
    const intake = await receive(job, 'b.pdf', { at: 'end' }, { bytes: bytesOf(await markedPdf(2)) });
    full = join(tmpdir(), 'folder-work-');
    await workOn(outputWork, output);
    await workOn(surveyWork, intake.id);
    await work();
    const trouble = { code: 'disk-full' };
    expect(await listOutputs(job)).toMatchObject([{ state: 'failed', trouble }]);
    expect(await openIntakes(job)).toMatchObject([{ state: 'failed', trouble }]);
    expect(await listRuns()).toMatchObject([{ state: 'failed', trouble }]);
    expect(inside('desk', 'failed', 'a')).toEqual(['a.pdf', 'why.txt']);
    const noRoom = await answer(() => Promise.reject(Object.assign(new Error(), { code: '53100' })));
    expect([noRoom.status, await noRoom.json()]).toEqual([507, { trouble }]);
  });

  test('a file that is handed out three times at once is on the docket once', async () => {
    const job = await createJob();
    const { id } = await receive(job, 'b.pdf', { at: 'end' }, { bytes: bytesOf(await markedPdf(2)) });
    await Promise.all([1, 2, 3].map(() => workOn(surveyWork, id)));
    await workOn(surveyWork, id);
    expect((await readJob(job)).docket.steps).toHaveLength(1);
    expect(await openIntakes(job)).toEqual([]);
  });

  test('a source that is swept away while a run counts on it is taken in anew', async () => {
    await addDropFolder({ name: 'desk', recipe: 'Bleed' });
    const bytes = await markedPdf(2);
    for (const name of ['first', 'again']) {
      writeFileSync(join(root, 'desk', `${name}.pdf`), bytes);
      await look();
      const hold = vi.mocked(sources.holdSource);
      const held = hold.mock.calls.length;
      if (name === 'again')
        hold.mockImplementationOnce(async () => {
          for (const { id } of await listJobs()) await deleteJob(id);
          await sweep(db());
          return false;
        });
      await work();
      expect(hold.mock.calls.length - held).toBe(name === 'again' ? 1 : 0);
    }
    expect(await listRuns()).toMatchObject([
      { fileName: 'again.pdf', state: 'done' },
      { fileName: 'first.pdf', state: 'done' },
    ]);
    expect((await listJobs()).map(({ summary }) => summary.title)).toEqual(['again']);
    expect(inside('desk', 'done', 'again')).toEqual(['again pages.pdf', 'again.docket.json', 'again.pdf']);
    expect(existsSync(join(root, 'desk', 'done', 'first', 'first pages.pdf'))).toBe(true);
  });
});
