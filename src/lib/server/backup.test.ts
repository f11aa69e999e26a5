import { createHash } from 'node:crypto';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { ownDatabase, server } from '../../../tests/database';
import { keep as keepFile, markedPdf, tool } from '../../../tests/outside';
import { emptyDocket } from '../core/docket/docket';
import { claim } from './claims';
import { closeDb, db } from './db';
import { dismissStandby } from './fence';
import { openIntakes, receive } from './intakes';
import { archiveOf, openArchive } from './jobArchive';
import { createJob, deleteJob, readJob, saveDocket } from './jobs';
import { keep, listKept } from './kept';
import { orderOutput } from './outputs';
import { addPerson } from './people';
import { saveRecipe } from './recipes';
import { outputWork } from './worker/output';
import { surveyWork } from './worker/survey';
import { workAt } from './worker/workAt';

const { backup, restore } = (await import('../../../scripts/lib/dump.mjs' as string)) as Record<
  'backup' | 'restore',
  (url: string, file: string) => Promise<void>
>;
const bytesOf = async function* (bytes: Uint8Array) {
  yield bytes;
};
const folder = mkdtempSync(join(tmpdir(), 'folder-backup-'));

/** A job with a surveyed file and a finished output. */
async function wholeJob(title: string, pages: number): Promise<string> {
  const job = await createJob(emptyDocket(title));
  const { id } = await receive(
    job,
    `${title}.pdf`,
    { at: 'end' },
    { bytes: bytesOf(await markedPdf(pages)) },
  );
  await workAt(surveyWork, (await claim('survey', id))!);
  const output = await orderOutput(job, { output: { kind: 'pages', crop: 'trim' }, despite: 'as agreed' });
  await workAt(outputWork, (await claim('output', output))!);
  return job;
}

/** What every table holds, in short. */
async function everything(): Promise<Record<string, string>> {
  const { rows: tables } = await db().query<{ name: string }>(
    "select table_name as name from information_schema.tables where table_schema = 'public' order by 1",
  );
  const held: Record<string, string> = {};
  for (const { name } of tables) {
    const { rows } = await db().query<{ all: string }>(
      `select coalesce(md5(string_agg(md5(t::text), ',' order by md5(t::text))), '') || count(*) as all from ${name} t`,
    );
    held[name] = rows[0]!.all;
  }
  return held;
}

describe.skipIf(!server)('what is kept elsewhere', () => {
  let close: () => Promise<void>;
  beforeAll(async () => void (close = await ownDatabase('backup')));
  afterAll(async () => {
    dismissStandby();
    await close();
  });

  test('a backup that is put back after all was lost holds every job, output, recipe and account, byte for byte', async () => {
    const url = process.env.DATABASE_URL!;
    for (const [title, pages] of [
      ['Timetable', 4],
      ['Guide', 9],
    ] as const)
      await wholeJob(title, pages);
    await saveRecipe({ recipe: 1, name: 'Fold', steps: [] });
    await keep('paper', { name: 'Moor', settings: { width: 600, height: 800, grammage: 90 } });
    await addPerson('Ada', 'moor lantern kettle nine');
    const before = await everything();
    expect(Object.values(before).filter((held) => held !== '0').length).toBeGreaterThan(9);
    const file = join(folder, 'all.folder');
    await backup(url, file);
    await db().query('truncate job, source, blob, recipe, kept, person cascade');
    await closeDb();
    await restore(url, file);
    expect(await everything()).toEqual(before);
    // What is no backup changes nothing, and leaves no file half-written.
    const broken = join(folder, 'broken.folder');
    const whole = readFileSync(file);
    for (const bytes of [Buffer.from('no backup'), whole.subarray(0, whole.length / 2)]) {
      writeFileSync(broken, bytes);
      await expect(restore(url, broken)).rejects.toThrow();
      expect(await everything()).toEqual(before);
    }
    await expect(backup(`${url}_gone`, join(folder, 'none'))).rejects.toThrow('pg_dump');
    expect(readdirSync(folder).sort()).toEqual(['all.folder', 'broken.folder']);
  });

  test('a job that is saved as a ZIP is opened as it was, also where its files are not known; unzip finds it whole', async () => {
    const job = await wholeJob('Stationery', 3);
    const { docket, revision } = await readJob(job);
    await saveDocket(job, revision, {
      ...docket,
      unit: 'in',
      steps: [...docket.steps, { id: 'x', kind: 'remove', pages: '2' }],
    });
    const asZip = async () => Buffer.from(await (await archiveOf(job)).arrayBuffer());
    const zip = await asZip();
    expect(tool('unzip', '-l', keepFile(zip, 'job.zip'))).toMatch(/docket\.json[\s\S]*sources\/[0-9a-f]{64}/);
    const wanted = (await readJob(job)).docket;
    await deleteJob(job);
    await db().query("delete from kept where kind = 'paper'");
    const opened = await openArchive({ bytes: bytesOf(zip) });
    for (const { id } of await openIntakes(opened)) await workAt(surveyWork, (await claim('survey', id))!);
    expect((await readJob(opened)).docket).toEqual(wanted);
    const { rows } = await db().query<{ summary: { pages: number } }>(
      'select summary from job where id = $1',
      [opened],
    );
    expect(rows[0]!.summary.pages).toBe(2);
    expect(await listKept('paper')).toMatchObject([{ name: 'Moor' }]);
    const again = Buffer.from(await (await archiveOf(opened)).arrayBuffer());
    const sourceOf = (bytes: Buffer) =>
      createHash('sha256')
        .update(tool('unzip', '-p', keepFile(bytes, 'a.zip'), 'sources/*'))
        .digest('hex');
    expect(sourceOf(again)).toBe(sourceOf(zip));
  });

  test('what is no such ZIP is refused, and leaves nothing', async () => {
    const job = await wholeJob('Tickets', 2);
    const zip = Buffer.from(await (await archiveOf(job)).arrayBuffer());
    const { rows: before } = await db().query('select count(*) from blob');
    const spoilt = Buffer.from(zip);
    spoilt.fill(7, spoilt.indexOf('sources/') + 200, spoilt.indexOf('sources/') + 300);
    for (const bytes of [Buffer.from('no ZIP'), zip.subarray(0, zip.length - 30), spoilt])
      await expect(openArchive({ bytes: bytesOf(bytes) })).rejects.toMatchObject({
        trouble: { code: 'bad-archive' },
      });
    expect((await db().query('select count(*) from blob')).rows).toEqual(before);
  });
});
