import { execFile } from 'node:child_process';
import { createHash, randomUUID } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import { promisify } from 'node:util';
import { afterAll, beforeAll, beforeEach, describe, expect, test, vi } from 'vitest';
import { workOut } from '../core/checks';
import { emptyDocket, filesOf, type Docket } from '../core/docket/docket';
import type { Step } from '../core/docket/steps';
import { ownDatabase, server } from '../../../tests/database';
import { docketOf, hashOf, plainSurvey, takeInStep } from '../../../tests/makers';
import { appendTo, openBlob, readBlob, readPart, receiveBlob, sealBlob, storeBlob, sweep } from './blobs';
import { db, listen, transaction } from './db';
import * as coming from './intakes';
import { claim, endClaim, releaseSilent, tend, type Claim } from './claims';
import { dismissIntake, failIntake, openIntakes, receive, settleIntake } from './intakes';
import { isAway } from './away';
import { answer } from './problem';
import { copyJob, createJob, deleteJob, pushState, readJob, saveDocket, walk } from './jobs';
import { ALL_JOBS, JOB_ORDERS, JOB_SHOWS, type JobQuery } from '../wire/jobQuery';
import { firstJobs, listJobs } from './jobList';
import { finishMeasure, stopMeasures } from './measures';
import { migrate } from './migrate';
import { addFinished, dropOutput, finishOutput, listOutputs, orderOutput, outputFiles } from './outputs';
import { BLEED } from './fenced/samples';
import { forget, keep, listKept } from './kept';
import { dropOwnStamp, keepOwnStamp } from './ownStamps';
import { dropRecipe, findRecipe, listRecipes, saveRecipe } from './recipes';
import { QUEUES } from './queue';
import { replayOnJobs } from './replayOnJobs';
import { claimRun, dropRun, finishRun, forgetOldRuns, listRuns, orderedRun, orderRun } from './runs';
import { addSource, surveysOfJob } from './sources';
import { speakIn } from './speech';
import { nextChange, stopHearing } from './changes';
import { pulseOf, statusOf } from './status';
import { listWork, tryAgain } from './work';

const MIB = 1 << 20;
vi.mock('./intakes', async (original) => {
  const real = await original<typeof coming>();
  return { ...real, openIntakes: vi.fn(real.openIntakes) };
});
const bytesOf = async function* (...parts: Uint8Array[]) {
  yield* parts;
};
const count = async (table: string) =>
  Number((await db().query<{ n: string }>(`select count(*) as n from ${table}`)).rows[0]!.n);
const titled = (docket: Docket, title: string): Docket => ({ ...docket, title });

describe.skipIf(!server)('what the database keeps', () => {
  let close: () => Promise<void>;
  beforeAll(async () => {
    close = await ownDatabase('unit');
    await migrate();
  });
  afterAll(() => close());
  beforeEach(async () => {
    await db().query('truncate job, source, blob, picture, own_stamp, recipe, drop_folder, run cascade');
  });

  test('a window that waits for news of its job is told of it, and after a while that there is none', async () => {
    const [job, other] = [await createJob(), await createJob()];
    const { tag } = await pulseOf(job, {});
    const held = () => pulseOf(job, { tag, hold: '1' });
    expect(await held()).not.toHaveProperty('status');
    // So long that only news can end it.
    let told = false;
    const { change, drop } = nextChange(job, 600_000);
    void change.then(() => (told = true));
    await wait(300);
    await saveDocket(other, 1, emptyDocket('x'));
    await wait(300);
    expect(told).toBe(false);
    await orderOutput(job, { output: { kind: 'docket' } });
    await expect.poll(() => told).toBe(true);
    drop();
    expect(await held()).toHaveProperty('status');
    await stopHearing();
  });

  test('what is notified is heard, and after the connection was cut it is heard again', async () => {
    const words: (string | undefined)[] = [];
    const stop = listen('test_channel', (said) => words.push(said));
    await expect.poll(() => words).toEqual([undefined]);
    await db().query("select pg_notify('test_channel', 'one')");
    await expect.poll(() => words).toEqual([undefined, 'one']);
    await db().query(
      "select pg_terminate_backend(pid) from pg_stat_activity where query like 'listen%test_channel%'",
    );
    // Told without words, since something may have been missed meanwhile.
    await expect.poll(() => words).toEqual([undefined, 'one', undefined]);
    await db().query("select pg_notify('test_channel', 'two')");
    await expect.poll(() => words.at(-1)).toBe('two');
    await stop();
    const hearing =
      "select from pg_stat_activity where query like 'listen%test_channel%' and pid <> pg_backend_pid()";
    await expect.poll(async () => (await db().query(hearing)).rowCount).toBe(0);
  });

  test('several programs that start at once on a new database all get their queues', async () => {
    const starts = Array.from({ length: 4 }, () =>
      promisify(execFile)(process.execPath, [
        ...['--import', 'tsx', '--input-type=module', '-e'],
        "const { queue, closeQueue } = await import('./src/lib/server/queue.ts'); await queue(); await closeQueue(); process.exit(0);",
      ]),
    );
    await Promise.all(starts);
    const { rows } = await db().query<{ name: string }>('select name from queue.queue');
    expect(rows.map(({ name }) => name)).toEqual(expect.arrayContaining([...QUEUES]));
  });

  test('a database that a newer Folder has used is left alone', async () => {
    await db().query("insert into migration (name) values ('999_of_tomorrow.sql')");
    await expect(migrate()).rejects.toThrow(/newer Folder \(it has 999_of_tomorrow\.sql\)/);
    await db().query("delete from migration where name like '999%'");
    await migrate();
  });

  test('a connection that is lost while it is used, idle or not, ends nothing but what it was used for', async () => {
    const end =
      'select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()';
    const lost = transaction(async (client) => {
      await db().query(end);
      await new Promise((done) => setTimeout(done, 100));
      await client.query('select 1');
    });
    await expect(lost).rejects.toSatisfy(isAway);
    expect(await answer(() => lost).then(({ status }) => status)).toBe(503);
    expect(await count('job')).toBe(0);
  });

  test('what cannot be read is nowhere stored, and one that is there is removed as any other', async () => {
    const broken = docketOf([{ ...takeInStep('a'), source: null } as never]);
    await expect(createJob(broken)).rejects.toMatchObject({ code: 'docket-invalid' });
    const id = await createJob();
    await expect(transaction((client) => pushState(client, id, broken))).rejects.toMatchObject({
      code: 'docket-invalid',
    });
    await db().query('update docket_state set docket = $1', [JSON.stringify({ ...broken, version: 9 })]);
    await expect(readJob(id)).rejects.toMatchObject({ status: 422, trouble: { code: 'job-newer' } });
    expect(await listJobs()).toMatchObject([{ id, newer: true }]);
    await db().query('update docket_state set docket = $1', [JSON.stringify(broken)]);
    await expect(readJob(id)).rejects.toMatchObject({ status: 422, trouble: { code: 'job-damaged' } });
    await deleteJob(id);
    expect(await count('docket_state')).toBe(0);
  });

  test('a change that does not say what it was made of is refused', async () => {
    const id = await createJob();
    for (const revision of [undefined, null, '1', 1.5]) {
      await expect(walk(id, revision, 'undo')).rejects.toMatchObject({ trouble: { code: 'no-revision' } });
      await expect(saveDocket(id, revision, emptyDocket('x'))).rejects.toMatchObject({ status: 400 });
    }
  });

  test('connections that the database closes while they wait are replaced', async () => {
    await Promise.all([count('job'), count('job'), count('job')]);
    const { rowCount } = await db().query(
      'select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()',
    );
    await new Promise((done) => setTimeout(done, 100));
    expect(rowCount).toBeGreaterThanOrEqual(2);
    expect(await count('job')).toBe(0);
  });

  /** Puts a source where a take-in step finds it, as if it had been surveyed. */
  const source = async (letter: string, pages = 4) =>
    transaction(async (client) => {
      const blob = await storeBlob(client, bytesOf(Buffer.from(`bytes of ${letter}`)));
      await client.query('update blob set sha256 = $2 where id = $1', [blob.id, hashOf(letter)]);
      await addSource(client, hashOf(letter), blob.id, plainSurvey(pages));
    });

  describe('files', () => {
    /** No two pieces of it are alike. */
    const bytesOfLength = (size: number) =>
      Buffer.from(Uint32Array.from({ length: Math.ceil(size / 4) }, (_, n) => n).buffer).subarray(0, size);
    const received = async (bytes: AsyncIterable<Uint8Array>) => {
      const file = await receiveBlob(bytes);
      return transaction((client) => sealBlob(client, file));
    };
    const stored = (bytes: AsyncIterable<Uint8Array>) => transaction((client) => storeBlob(client, bytes));

    test.each([0, 1, MIB - 1, MIB, MIB + 1, 5.5 * MIB])(
      '%d bytes come back as they went in, in chunks of 1 MiB',
      async (size) => {
        const whole = bytesOfLength(size);
        const cut = Math.floor(size / 3);
        for (const way of [received, stored]) {
          const { id, sha256 } = await way(bytesOf(whole.subarray(0, cut), whole.subarray(cut)));
          expect(sha256).toBe(createHash('sha256').update(whole).digest('hex'));
          const chunks = [];
          for await (const chunk of readBlob(id)) chunks.push(chunk);
          expect(Buffer.concat(chunks).equals(whole)).toBe(true);
          expect(chunks.slice(0, -1).every((chunk) => chunk.length === MIB)).toBe(true);
          expect(chunks).toHaveLength(Math.ceil(size / MIB));
          await db().query('delete from blob where id = $1', [id]);
        }
      },
    );

    test('what breaks off while it is received leaves nothing', async () => {
      const before = [await count('blob'), await count('blob_chunk')];
      async function* breakingOff() {
        yield bytesOfLength(4.5 * MIB);
        throw new Error('the line is cut');
      }
      await expect(receiveBlob(breakingOff())).rejects.toThrow('cut');
      expect([await count('blob'), await count('blob_chunk')]).toEqual(before);
    });

    test('parts of a file are read as they lie, across chunks of any length', async () => {
      const whole = Buffer.from(Array.from({ length: 1000 }, (_, n) => n % 251));
      const id = await openBlob();
      let at = 0;
      for (const length of [300, 1, 0, 399, 300]) {
        await appendTo(id, at, whole.subarray(at, at + length));
        at += length;
      }
      await transaction((client) => sealBlob(client, { id, sha256: hashOf('parts'), size: at }));
      for (const [from, to] of [
        [0, 1000],
        [0, 1],
        [299, 302],
        [300, 301],
        [650, 750],
        [999, 1000],
      ] as const) {
        const parts = [];
        for await (const part of readPart(id, from, to)) parts.push(part);
        expect(Buffer.concat(parts).equals(whole.subarray(from, to))).toBe(true);
      }
    });

    test('a file that is there is stored no second time; one that breaks off leaves nothing', async () => {
      const store = (text: string) => transaction((client) => storeBlob(client, bytesOf(Buffer.from(text))));
      const [first, second] = [await store('same'), await store('same')];
      expect(second.id).toBe(first.id);
      const both = await Promise.all([store('at once'), store('at once')]);
      expect(both[0]!.sha256).toBe(both[1]!.sha256);
      const broken = async function* () {
        yield Buffer.alloc(MIB);
        throw new Error('the line went dead');
      };
      await expect(transaction((client) => storeBlob(client, broken()))).rejects.toThrow(
        'the line went dead',
      );
      expect([await count('blob'), await count('blob_chunk')]).toEqual([2, 2]);
    });
  });

  describe('jobs', () => {
    test('a stale write is refused with the present state, and nothing is overwritten', async () => {
      const id = await createJob();
      const saved = await saveDocket(id, 1, titled(emptyDocket('x'), 'First'));
      expect(saved).toMatchObject({ revision: 2, canUndo: true, docket: { title: 'First' } });
      await expect(saveDocket(id, 1, titled(emptyDocket('x'), 'Late'))).rejects.toMatchObject({
        status: 409,
        body: { job: { revision: 2, docket: { title: 'First' } } },
      });
      await expect(walk(id, 1, 'undo')).rejects.toMatchObject({ status: 409 });
      expect((await readJob(id)).docket.title).toBe('First');
    });

    test('of two writes at once exactly one is taken', async () => {
      const id = await createJob();
      const results = await Promise.allSettled(
        ['A', 'B', 'C'].map((title) => saveDocket(id, 1, emptyDocket(title))),
      );
      expect(results.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
      expect((await readJob(id)).revision).toBe(2);
    });

    test('undo and redo walk the states; a change cuts off what lay ahead', async () => {
      const id = await createJob(emptyDocket('0'));
      for (const [i, title] of ['1', '2', '3'].entries()) await saveDocket(id, i + 1, emptyDocket(title));
      expect(await walk(id, 4, 'undo')).toMatchObject({ docket: { title: '2' }, redo: [{ title: '3' }] });
      expect(await walk(id, 5, 'undo')).toMatchObject({
        docket: { title: '1' },
        redo: [{ title: '2' }, { title: '3' }],
      });
      expect(await walk(id, 6, 'redo')).toMatchObject({ docket: { title: '2' } });
      expect(await saveDocket(id, 7, emptyDocket('other'))).toMatchObject({ redo: [] });
      expect(await walk(id, 8, 'redo')).toMatchObject({ docket: { title: 'other' } });
      for (const revision of [8, 9, 10, 11]) await walk(id, revision, 'undo');
      expect(await readJob(id)).toMatchObject({ docket: { title: '0' }, canUndo: false });
    });

    test('a docket that is none is refused', async () => {
      const id = await createJob();
      await expect(saveDocket(id, 1, { version: 2 })).rejects.toMatchObject({ status: 400 });
      await expect(readJob('no-uuid')).rejects.toMatchObject({ status: 404 });
      await expect(readJob('00000000-0000-4000-8000-000000000000')).rejects.toMatchObject({ status: 404 });
    });

    test('deleting a job deletes its files, but those that other jobs ever took in stay', async () => {
      await source('a');
      await source('b');
      const first = await createJob(docketOf([takeInStep('a'), takeInStep('b')]));
      const copy = await copyJob(first);
      // The copy lets go of b, but its undo still leads there.
      const { docket } = await readJob(copy);
      await saveDocket(copy, 1, { ...docket, steps: docket.steps.slice(0, 1) });
      await deleteJob(first);
      expect([await count('source'), await count('blob')]).toEqual([2, 2]);
      expect(Object.keys(await surveysOfJob(copy)).sort()).toEqual([hashOf('a'), hashOf('b')]);
      await deleteJob(copy);
      expect([await count('source'), await count('blob'), await count('docket_state')]).toEqual([0, 0, 0]);
    });

    test('the list says what each job is, last touched first', async () => {
      await source('a', 6);
      const older = await createJob(docketOf([takeInStep('a')], { title: 'Older' }));
      await createJob(emptyDocket('Newer'));
      expect((await listJobs()).map(({ summary }) => summary.title)).toEqual(['Newer', 'Older']);
      await saveDocket(older, 1, docketOf([takeInStep('a')], { title: 'Touched' }));
      const [first] = await listJobs();
      expect(first!.summary).toMatchObject({
        title: 'Touched',
        pages: 6,
        sheets: 2,
        open: { stop: 0, look: 1, note: 1 },
      });
      expect(first!.summary.spread).toHaveLength(1);
    });

    /** Measuring of a file ends with so many pages; before it asks the database what begins so, `meanwhile` is done. */
    async function measured(
      letter: string,
      pages: number,
      asked: string,
      meanwhile: () => Promise<unknown>,
    ): Promise<void> {
      await db().query("update measure set state = 'waiting'");
      const mine = (await claim('measure', hashOf(letter)))!;
      db().once('acquire', (client) => {
        const query = client.query.bind(client) as (sql: string, values?: unknown[]) => Promise<unknown>;
        const spy = vi.spyOn(client, 'query').mockImplementation((async (sql: string, values?: unknown[]) => {
          if (sql.startsWith(asked)) {
            spy.mockRestore();
            await meanwhile();
          }
          return query(sql, values);
        }) as never);
      });
      expect(await finishMeasure(mine, plainSurvey(pages))).toBe(true);
    }

    test('what is saved while the pages of a job are measured stays on the list', async () => {
      await source('a', 6);
      const id = await createJob(docketOf([takeInStep('a')], { title: 'Before' }));
      const listed = async () => (await listJobs()).map(({ summary: { title, pages } }) => [title, pages]);
      const save = (revision: number, title: string) =>
        saveDocket(id, revision, docketOf([takeInStep('a')], { title }));
      await measured('a', 8, 'update job set summary', () => save(1, 'Saved meanwhile'));
      expect(await listed()).toEqual([['Saved meanwhile', 8]]);
      // The next state has the number of the one that was undone.
      await measured('a', 10, 'update job set summary', async () => {
        await walk(id, 2, 'undo');
        await save(3, 'Another way');
      });
      expect(await listed()).toEqual([['Another way', 10]]);
    });

    test('a job is deleted while its pages are measured; neither waits for the other', async () => {
      for (const [letter, asked] of [
        ['a', 'update source'],
        ['b', 'update job set summary'],
      ] as const) {
        await source(letter, 6);
        const id = await createJob(docketOf([takeInStep(letter)]));
        let deleted: Promise<void> | undefined;
        await measured(letter, 8, asked, () => Promise.race([(deleted = deleteJob(id)), wait(500)]));
        await deleted;
        expect(await listJobs()).toEqual([]);
      }
      // The file that was held goes with the next one that is not wanted.
      await deleteJob(await createJob(emptyDocket('Empty')));
      expect([await count('source'), await count('blob')]).toEqual([0, 0]);
    });

    test('the list is searched, filtered and ordered, and its parts put together are all of it', async () => {
      await source('a', 6);
      await source('b', 3);
      for (const [title, steps] of [
        ['Part 10', ['a']],
        ['Part 9', ['b', 'a']],
        ['100 % wool', []],
        ['Part 9', ['b']],
      ] as const)
        await createJob(
          docketOf(
            steps.map((key) => takeInStep(key)),
            { title },
          ),
        );
      const found = async (query: Partial<JobQuery>) =>
        (await listJobs({ ...ALL_JOBS, ...query })).map(({ summary }) => summary.title);
      const all = await found({});
      expect(all).toEqual(['Part 9', '100 % wool', 'Part 9', 'Part 10']);
      expect(await found({ order: 'title' })).toEqual(['100 % wool', 'Part 9', 'Part 9', 'Part 10']);
      expect(await found({ order: 'pages' })).toEqual(['Part 9', 'Part 10', 'Part 9', '100 % wool']);
      expect(await found({ search: '%' })).toEqual(['100 % wool']);
      expect(await found({ search: '_' })).toEqual([]);
      expect(await found({ search: 'WOOL 100' })).toEqual(['100 % wool']);
      // By its kind in either language, and by its size.
      for (const search of ['booklet', 'heft']) expect(await found({ search }), search).toEqual(all);
      for (const search of ['a5', '148'])
        expect(await found({ search }), search).toEqual(['Part 9', 'Part 9', 'Part 10']);
      // One with a stop, one with nothing open: each filter finds some and leaves some.
      for (const [title, stop, look] of [
        ['Part 10', 2, 0],
        ['Part 9', 0, 0],
      ] as const)
        await db().query(
          `update job set summary = jsonb_set(summary::jsonb, '{open}', $2)::json where id in (select id from job where title = $1 limit 1)`,
          [title, JSON.stringify({ stop, look, note: 0 })],
        );
      const listed = await listJobs();
      for (const show of JOB_SHOWS) {
        const those = listed.filter(({ summary: { open, pages } }) => {
          const isOpen = open.stop + open.look > 0;
          return { all: true, stop: open.stop > 0, open: isOpen, fine: pages > 0 && !isOpen }[show];
        });
        expect(those.length, show).toBeGreaterThan(0);
        expect(await listJobs({ ...ALL_JOBS, show })).toEqual(those);
        expect(await firstJobs({ ...ALL_JOBS, show })).toEqual({ jobs: those, found: those.length, all: 4 });
      }
      expect(listed.map(({ alike }) => !!alike)).toEqual([true, false, true, false]);
      for (const order of JOB_ORDERS) {
        const parts = [0, 1, 2, 3].map((from) => listJobs({ ...ALL_JOBS, order }, from, 1));
        expect((await Promise.all(parts)).flat()).toEqual(await listJobs({ ...ALL_JOBS, order }));
      }
      // Jobs of a Folder that did not keep what they are found by.
      await db().query('update job set found_by = null');
      await migrate();
      expect(await found({ search: 'a5 heft' })).toEqual(['Part 9', 'Part 9', 'Part 10']);
    });
  });

  describe('files on their way in', () => {
    const arrive = async (job: string, name: string) => {
      const { id } = await receive(job, name, { at: 'end' }, { bytes: bytesOf(Buffer.from(name)) });
      return (await claim('survey', id))!;
    };
    const settle = async (file: Claim) => !!(await settleIntake(file, plainSurvey(2)));

    test('are in what is told of a job, one way or the other, also when they come in just then', async () => {
      const job = await createJob();
      const { revision } = await readJob(job);
      const file = await arrive(job, 'a.pdf');
      expect(await statusOf(job)).toMatchObject({ revision, intakes: [{ name: 'a.pdf' }] });
      vi.mocked(coming.openIntakes).mockImplementationOnce(async () => {
        await settle(file);
        return [];
      });
      const { revision: now } = await statusOf(job);
      expect(now).toBeGreaterThan(revision);
      // What is asked side by side ends in any order.
      for (let n = 0; n < 10; n++) await expect(statusOf('nowhere')).rejects.toMatchObject({ status: 404 });
    });

    test('go on the docket in the order they came, however long each survey takes', async () => {
      const job = await createJob(emptyDocket('New job'));
      const files = [
        await arrive(job, 'moor_guide.pdf'),
        await arrive(job, 'b.pdf'),
        await arrive(job, 'c.pdf'),
      ];
      await settle(files[2]!);
      expect((await readJob(job)).docket.steps).toEqual([]);
      await settle(files[0]!);
      await failIntake(files[1]!, { code: 'damaged' }, false);
      const { docket } = await readJob(job);
      expect(docket.steps.map((step) => step.kind === 'take-in' && step.name)).toEqual([
        'moor_guide.pdf',
        'c.pdf',
      ]);
      expect(docket.title).toBe('moor guide');
      expect(await openIntakes(job)).toMatchObject([
        { name: 'b.pdf', state: 'failed', trouble: { code: 'damaged' } },
      ]);
    });

    test('one kept aside becomes a source of the job and no page; its stamp outlives the job', async () => {
      const job = await createJob();
      const intake = await receive(job, 'mark.pdf', { at: 'aside' }, { bytes: bytesOf(Buffer.from('mark')) });
      await settle((await claim('survey', intake.id))!);
      expect((await readJob(job)).docket.steps).toEqual([]);
      expect(Object.keys(await surveysOfJob(job))).toEqual([intake.sha256]);
      expect(await openIntakes(job)).toEqual([]);

      const stamp = {
        graphic: { source: intake.sha256, name: 'mark.pdf', index: 0 },
        size: { by: 'width', width: 60 },
        placing: { box: 'trim', x: 'outer', y: 'foot', dx: 9, dy: 9, turn: 0 },
        opacity: 1,
      };
      await expect(keepOwnStamp({ name: ' ', stamp })).rejects.toMatchObject({
        trouble: { code: 'bad-stamp' },
      });
      const gone = { ...stamp, graphic: { ...stamp.graphic, source: hashOf('0') } };
      await expect(keepOwnStamp({ name: 'Gone', stamp: gone })).rejects.toMatchObject({ status: 400 });
      await keepOwnStamp({ name: 'Moor mark', stamp });
      // The same name with other capitals is the same stamp.
      expect(await keepOwnStamp({ name: 'MOOR MARK', stamp: { ...stamp, opacity: 0.5 } })).toMatchObject([
        { name: 'MOOR MARK', stamp: { opacity: 0.5 } },
      ]);
      await deleteJob(job);
      expect(await count('source')).toBe(1);
      expect(await dropOwnStamp('moor mark')).toEqual([]);
      expect([await count('source'), await count('blob')]).toEqual([0, 0]);
    });

    test('papers and folds are kept by kind and name, and only what their schemas hold', async () => {
      const paper = { width: 600, height: 800, grammage: 90 };
      await expect(keep('paper', { name: 'Moor', settings: { width: -1, height: 2 } })).rejects.toMatchObject(
        {
          trouble: { code: 'bad-kept' },
        },
      );
      await expect(keep('paper', { name: ' ', settings: paper })).rejects.toMatchObject({ status: 400 });
      await expect(listKept('toString')).rejects.toMatchObject({ status: 404 });
      await keep('paper', { name: 'Moor', settings: paper });
      expect(await keep('paper', { name: 'MOOR', settings: { ...paper, grammage: 100 } })).toEqual([
        { name: 'MOOR', settings: { ...paper, grammage: 100 } },
      ]);
      expect(await listKept('folds')).toEqual([]);
      expect(await forget('paper', 'moor')).toEqual([]);
    });

    test('one that fails leaves only the word of it, until that is put away', async () => {
      const job = await createJob();
      const file = await arrive(job, 'bad.pdf');
      await failIntake(file, { code: 'not-a-pdf' }, false);
      expect([await count('blob'), await count('blob_chunk'), await count('source')]).toEqual([0, 0, 0]);
      await dismissIntake(file.id);
      expect(await openIntakes(job)).toEqual([]);
    });

    test('surveyed twice, by whoever, one goes on the docket once; what comes of it later changes nothing', async () => {
      const job = await createJob();
      const late = await arrive(job, 'guide.pdf');
      expect(await claim('survey', late.id)).toBeUndefined();
      await db().query("update intake set seen_at = now() - interval '1 minute'");
      await releaseSilent();
      const next = (await claim('survey', late.id))!;
      expect(await settle(next)).toBe(true);
      for (const again of [late, next]) {
        expect(await settle(again)).toBe(false);
        expect(await failIntake(again, { code: 'damaged' }, false)).toBe(false);
      }
      const { docket, revision } = await readJob(job);
      expect(docket.steps).toMatchObject([{ source: expect.stringMatching(/^[0-9a-f]{64}$/) as string }]);
      expect(await walk(job, revision, 'undo')).toMatchObject({ canUndo: false });
      await deleteJob(job);
      expect(await settle(next)).toBe(false);
    });

    test('are refused for a job that is not there', async () => {
      await expect(
        receive('00000000-0000-4000-8000-000000000000', 'x', { at: 'end' }, { bytes: bytesOf() }),
      ).rejects.toMatchObject({ status: 404 });
      await expect(
        receive(await createJob(), 'x', { at: 'nowhere' }, { bytes: bytesOf() }),
      ).rejects.toMatchObject({
        status: 400,
      });
    });
  });

  describe('recipes', () => {
    const recipe = (more: object = {}) => ({
      recipe: 1,
      name: 'Bleed all round',
      steps: [{ id: 'b', kind: 'bleed', pages: 'all', head: 9, foot: 9, spine: 9, fore: 9 }],
      asks: [{ name: 'head', label: 'At the head', kind: 'length', step: 'b', path: ['head'], preset: 9 }],
      ...more,
    });

    test('count their versions under a name, whatever its capitals; what cannot be read is refused', async () => {
      expect(await saveRecipe(recipe())).toMatchObject({ version: 1 });
      expect(await saveRecipe(recipe({ name: 'BLEED ALL ROUND' }))).toMatchObject({ version: 2 });
      expect((await listRecipes()).recipes.map(({ name, version }) => [name, version])).toEqual([
        ['BLEED ALL ROUND', 2],
      ]);
      await expect(saveRecipe(recipe({ recipe: 2 }))).rejects.toMatchObject({
        trouble: { code: 'recipe-newer' },
      });
      await dropRecipe('bleed all round');
      await saveRecipe(recipe({ name: 'Plain' }));
      await db().query("insert into recipe (name, recipe) values ('Newer', '{\"recipe\": 2}')");
      expect((await listRecipes()).recipes.map(({ name }) => name)).toEqual(['Plain']);
      expect((await listRecipes()).unread).toEqual([
        { name: 'Newer', trouble: { code: 'recipe-newer', data: { version: 2 } } },
      ]);
      await expect(findRecipe('newer')).rejects.toMatchObject({ trouble: { code: 'recipe-newer' } });
      await expect(findRecipe('Bleed all round')).rejects.toMatchObject({ status: 404 });
    });

    test('keep the files that they bring along as long as they are there', async () => {
      await source('c');
      await saveRecipe(recipe({ steps: [takeInStep('c')], asks: [] }));
      await sweep(db());
      expect(await count('source')).toBe(1);
      await dropRecipe('Bleed all round');
      expect([await count('source'), await count('blob')]).toEqual([0, 0]);
    });

    test('are replayed on jobs, one change each that undo takes back; a job that cannot take it stays as it is', async () => {
      await source('a');
      const jobs = [await createJob(docketOf([takeInStep('a')])), await createJob(emptyDocket('Empty'))];
      await saveRecipe(recipe());
      const results = await replayOnJobs('bleed all round', { jobs, values: { head: 20 } });
      expect(results).toMatchObject([{ pages: 4 }, { title: 'Empty', pages: 0 }]);
      const { docket, revision } = await readJob(jobs[0]!);
      expect(docket.steps[1]).toMatchObject({ head: 20, recipe: { name: 'Bleed all round', version: 1 } });
      expect((await walk(jobs[0]!, revision, 'undo')).docket.steps).toHaveLength(1);
      await expect(replayOnJobs('bleed all round', { jobs, values: { foot: 1 } })).rejects.toMatchObject({
        trouble: { code: 'value-unknown' },
      });
      await expect(replayOnJobs('bleed all round', { jobs: ['x'] })).rejects.toMatchObject({ status: 400 });
    });
  });

  describe('runs', () => {
    const order = async (name = 'in.pdf') => {
      await saveRecipe({ recipe: 1, name: 'Nothing', steps: [] });
      return orderRun('nothing', {}, '00000000-0000-4000-8000-000000000000', name, {
        bytes: bytesOf(Buffer.from(name)),
      });
    };

    test('go to one worker each, the oldest first, with the recipe as it was when they were ordered', async () => {
      const ids = [await order('1.pdf'), await order('2.pdf')];
      const begun = await Promise.all([claimRun(), claimRun(), claimRun()]);
      expect(begun.map((run) => run?.id).filter(Boolean).sort()).toEqual([...ids].sort()); // prettier-ignore
      const first = begun.find((run) => run?.id === ids[0])!;
      expect(await orderedRun(first)).toMatchObject({
        fileName: '1.pdf',
        recipe: { version: 1 },
        language: 'en',
      });
      expect(await claimRun()).toBeUndefined();
    });

    test('are carried out in the language of who ordered them', async () => {
      const id = await speakIn('de', () => order('auf-deutsch.pdf'));
      const claim = (await claimRun())!;
      expect(claim.id).toBe(id);
      expect(await orderedRun(claim)).toMatchObject({ language: 'de' });
    });

    test('that end let their file go, unless it is kept for another try', async () => {
      const ids = [await order('1.pdf'), await order('2.pdf')];
      const trouble = { code: 'damaged' } as const;
      for (const kept of [false, true]) {
        const mine = (await claimRun())!;
        expect(await transaction((client) => finishRun(client, mine, { trouble, kept }))).toBe(true);
        expect(await transaction((client) => finishRun(client, mine))).toBe(false);
      }
      await sweep(db());
      expect(await count('blob')).toBe(1);
      expect(await listRuns()).toMatchObject([
        { id: ids[1], again: true },
        { id: ids[0], trouble },
      ]);
      await tryAgain({ of: 'run', id: ids[1] });
      await expect(tryAgain({ of: 'run', id: ids[0] })).rejects.toMatchObject({ status: 409 });
      expect(await claimRun()).toMatchObject({ id: ids[1], tries: 1 });
    });

    test('are cancelled; their file is kept while they wait and no longer', async () => {
      const id = await order();
      await sweep(db());
      expect(await count('blob')).toBe(1);
      await dropRun(id);
      expect([await count('blob'), (await listRuns())[0]!.state]).toEqual([0, 'cancelled']);
      await dropRun(id);
      expect(await listRuns()).toEqual([]);
    });

    test('that ended long ago are forgotten, those that wait never are', async () => {
      const [waits, ended] = [await order(), await order()];
      await dropRun(ended);
      await forgetOldRuns();
      expect(await listRuns()).toHaveLength(2);
      await db().query(
        "update run set created_at = now() - interval '1 year', finished_at = finished_at - interval '31 days'",
      );
      // One of a folder that was not looked into since may still have its file there.
      await db().query(
        "with f as (insert into drop_folder (name, recipe) values ('desk', 'r') returning id) update run set folder_id = f.id from f",
      );
      await forgetOldRuns();
      expect(await listRuns()).toHaveLength(2);
      await db().query('update drop_folder set looked_at = now()');
      await forgetOldRuns();
      expect((await listRuns()).map(({ id }) => id)).toEqual([waits]);
    });
  });

  test('all work stands in one list: what goes on first, outputs, files on their way, pages to be measured, recipes', async () => {
    await source('a');
    const job = await createJob(docketOf([takeInStep('a')], { title: 'Moor guide' }));
    const output = await orderOutput(job, { output: { kind: 'pages', crop: 'trim' }, despite: 'proof' });
    await receive(job, 'late.pdf', { at: 'end' }, { bytes: bytesOf(Buffer.from('late')) });
    await saveRecipe({ recipe: 1, name: 'Fold', steps: [] });
    const run = await orderRun('Fold', {}, randomUUID(), 'scan.pdf', { bytes: bytesOf(Buffer.from('scan')) });
    await dropRun(run);
    const work = await listWork();
    expect(work.at(-1)).toMatchObject({
      of: 'run',
      name: 'scan.pdf',
      for: 'Fold, version 1',
      state: 'cancelled',
    });
    expect(new Set(work.slice(0, -1).map(({ of, state }) => `${of} ${state}`))).toEqual(
      new Set(['output waiting', 'intake waiting', 'measure waiting']),
    );
    expect(work.find(({ of }) => of === 'output')).toMatchObject({ id: output, job, for: 'Moor guide' });
    expect(work.find(({ of }) => of === 'measure')).toMatchObject({ job, done: 0, total: 0 });
  });

  test('a clean copy takes the place of its file, whose pages keep their names; both go into an archive, and cleaning anew begins with the file', async () => {
    await source('a');
    const job = await createJob(docketOf([takeInStep('a')]));
    const cleaning = { paper: true, through: false, edges: true };
    const cleanWith = async (asked: string, bytes: string) => {
      const { id } = await coming.orderCleanCopy(job, { source: asked, cleaning });
      expect(await openIntakes(job)).toMatchObject([{ id, copy: true }]);
      const mine = (await claim('survey', id))!;
      expect((await coming.fileOfIntake(mine))?.clean?.from).toBe(hashOf('a'));
      return settleIntake(mine, plainSurvey(2), { copy: bytesOf(Buffer.from(bytes)) });
    };
    const copy = (await cleanWith(hashOf('a'), 'clean'))!;
    const [step] = (await readJob(job)).docket.steps;
    expect(step).toMatchObject({ source: copy, cleaned: { ...cleaning, from: hashOf('a') } });
    const ids = async () =>
      workOut((await readJob(job)).docket, await surveysOfJob(job)).list.pages.map(({ id }) => id);
    expect((await ids())[0]).toBe(`${hashOf('a').slice(0, 12)}:1`);
    const again = (await cleanWith(copy, 'cleaner'))!;
    expect((await readJob(job)).docket.steps).toMatchObject([
      { source: again, cleaned: { from: hashOf('a') } },
    ]);
    expect(filesOf((await readJob(job)).docket)).toEqual([again, hashOf('a')]);
    await expect(coming.orderCleanCopy(job, { source: copy, cleaning })).rejects.toMatchObject({
      status: 404,
    });
  });

  test('a file on its way in is cancelled while it is surveyed, and those behind it go on', async () => {
    const job = await createJob(docketOf([]));
    const [first, second] = [
      await receive(job, 'a.pdf', { at: 'end' }, { bytes: bytesOf(Buffer.from('a')) }),
      await receive(job, 'b.pdf', { at: 'end' }, { bytes: bytesOf(Buffer.from('b')) }),
    ];
    const [mine, behind] = [(await claim('survey', first.id))!, (await claim('survey', second.id))!];
    expect(await settleIntake(behind, plainSurvey(1))).toBe(second.sha256);
    expect((await readJob(job)).docket.steps).toEqual([]);
    await dismissIntake(first.id);
    expect(await tend(mine, { done: 1, total: 2 })).toBe(false);
    expect((await readJob(job)).docket.steps).toMatchObject([{ name: 'b.pdf' }]);
    expect(await settleIntake(mine, plainSurvey(1))).toBeUndefined();
  });

  test('reading the pages of a job can be cancelled while it goes on: its worker loses it, and it can be asked for again', async () => {
    await source('a');
    const job = await createJob(docketOf([takeInStep('a')]));
    const mine = (await claim('measure', hashOf('a')))!;
    expect(await tend(mine, { done: 3, total: 16 })).toBe(true);
    expect((await statusOf(job)).measuring).toEqual([{ source: hashOf('a'), done: 3, total: 16 }]);
    expect(await listWork()).toMatchObject([{ of: 'measure', state: 'working', done: 3, total: 16 }]);
    await stopMeasures(job);
    expect(await tend(mine, { done: 4, total: 16 })).toBe(false);
    expect(await finishMeasure(mine, plainSurvey(4))).toBe(false);
    expect((await statusOf(job)).measuring).toEqual([]);
    const [work] = await listWork();
    expect(work).toMatchObject({ state: 'failed', again: true, trouble: { code: 'measure-cancelled' } });
    await expect(stopMeasures(job)).rejects.toMatchObject({ status: 409 });
    await tryAgain({ of: 'measure', id: job });
    expect((await claim('measure', hashOf('a')))?.tries).toBe(1);
  });

  describe('outputs', () => {
    const order = async () => {
      const job = await createJob(emptyDocket('Moor / guide'));
      return { job, id: await orderOutput(job, { output: { kind: 'sheets' } }) };
    };
    const begin = async (id: string) => (await claim('output', id))!;
    const finish = (mine: Claim) =>
      transaction(async (client) => {
        const { id: blobId } = await storeBlob(client, bytesOf(Buffer.from('%PDF')));
        return finishOutput(client, mine, [
          { blobId, made: { file: '1', name: 'Moor _ guide 1.pdf', bytes: 4, pages: 2, from: 1, to: 2 } },
          { blobId, made: { file: '2', name: 'Moor _ guide 2.pdf', bytes: 4 } },
        ]);
      });

    test('are there when done', async () => {
      const { job, id } = await order();
      const mine = await begin(id);
      expect(await tend(mine, { doing: 'writing', done: 3, total: 8 })).toBe(true);
      expect(await listOutputs(job)).toMatchObject([{ state: 'working', done: 3, total: 8, upToDate: true }]);
      await expect(outputFiles(id)).rejects.toMatchObject({ status: 404 });
      expect(await finish(mine)).toBe(true);
      expect(await outputFiles(id)).toMatchObject({
        archive: 'Moor _ guide sheets.zip',
        files: [{ name: 'Moor _ guide 1.pdf', size: 4 }, { name: 'Moor _ guide 2.pdf' }],
      });
      expect(await listOutputs(job)).toMatchObject([
        {
          state: 'done',
          files: [{ name: 'Moor _ guide 1.pdf', bytes: 4, pages: 2, from: 1, to: 2 }, { bytes: 4 }],
        },
      ]);
    });

    test('are fresh when a recipe made them, in whatever order its steps were written', async () => {
      const step = Object.fromEntries(Object.entries(BLEED).reverse()) as unknown as typeof BLEED;
      const written: Docket = { ...emptyDocket('By a recipe'), steps: [step] };
      const job = await createJob(written);
      await transaction((client) => addFinished(client, job, written, { kind: 'docket' }, []));
      expect(await listOutputs(job)).toMatchObject([{ state: 'done', upToDate: true }]);
    });

    test('are stale once the pages have changed, but not for another unit', async () => {
      const { job, id } = await order();
      await finish(await begin(id));
      const { docket } = await readJob(job);
      await saveDocket(job, 1, { ...docket, unit: 'in' });
      expect(await listOutputs(job)).toMatchObject([{ upToDate: true }]);
      await saveDocket(job, 2, { ...docket, book: { first: 'left' } });
      expect(await listOutputs(job)).toMatchObject([{ upToDate: false }]);
    });

    test('are stopped by cancelling, and leave no file', async () => {
      const { job, id } = await order();
      const mine = await begin(id);
      await dropOutput(id);
      expect(await tend(mine, { done: 1, total: 2 })).toBe(false);
      const late = transaction(async (client) => {
        await storeBlob(client, bytesOf(Buffer.from('late')));
        if (!(await finishOutput(client, mine, []))) throw new Error('lost');
      });
      await expect(late).rejects.toThrow('lost');
      await sweep(db());
      expect(await count('blob')).toBe(0);
      expect(await listOutputs(job)).toMatchObject([{ state: 'cancelled' }]);
      await dropOutput(id);
      expect(await listOutputs(job)).toEqual([]);
    });

    test('wait for a word while a finding says stop, and keep it', async () => {
      const failing: Step = { id: 'x', kind: 'remove', pages: '7' };
      const job = await createJob({ ...emptyDocket('x'), steps: [failing] });
      const output = { kind: 'sheets' };
      for (const despite of [undefined, ' '])
        await expect(orderOutput(job, { output, despite })).rejects.toMatchObject({
          status: 422,
          trouble: { code: 'stop-findings', data: { count: 1 } },
        });
      await orderOutput(job, { output, despite: 'seen by the customer' });
      expect(await listOutputs(job)).toMatchObject([{ despite: 'seen by the customer' }]);
    });

    test('that fail say why', async () => {
      const { job, id } = await order();
      await endClaim(db(), await begin(id), 'failed', { code: 'no-sheets' });
      expect(await listOutputs(job)).toMatchObject([{ state: 'failed', trouble: { code: 'no-sheets' } }]);
      await expect(orderOutput(job, { output: { kind: 'statue' } })).rejects.toMatchObject({ status: 400 });
    });
  });
});
