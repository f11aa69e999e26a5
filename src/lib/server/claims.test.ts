import { afterAll, beforeAll, beforeEach, describe, expect, test, vi } from 'vitest';
import { ownDatabase, server } from '../../../tests/database';
import {
  beginAgain,
  claim,
  claimNext,
  endClaim,
  giveBack,
  MOST_TRIES,
  allWaiting,
  releaseSilent,
  SILENT_SECONDS,
  tend,
  tryLater,
  WORK_KINDS,
  type Claim,
  type WorkKind,
} from './claims';
import { db } from './db';
import { Lost, workOn, type Worked } from './worker/workAt';
import { FenceError } from './fence';

const HASH = 'a'.repeat(64);
const JOB = '00000000-0000-4000-8000-000000000001';
const ID = '00000000-0000-4000-8000-000000000002';
const idOf = (kind: string) => (kind === 'measure' ? HASH : ID);
const TABLE = { survey: 'intake', measure: 'measure', output: 'output', run: 'run' };
const QUIET = { done: 0, total: 0 };

const waitingFor = async (of: WorkKind) =>
  (await allWaiting()).filter(({ kind }) => kind === of).map(({ id }) => id);

describe.skipIf(!server)('claims', () => {
  let close: () => Promise<void>;
  beforeAll(async () => void (close = await ownDatabase('claims')));
  afterAll(() => close());
  beforeEach(async () => {
    await db().query('truncate job, source, blob, run, fault cascade');
    await db().query(`insert into job (id, summary) values ('${JOB}', '{}')`);
    await db().query(
      `with b as (insert into blob (sha256) values ('${HASH}') returning id),
       s as (insert into source (sha256, blob_id, survey) select '${HASH}', id, '{}' from b returning sha256),
       m as (insert into measure (id, state) select sha256, 'waiting' from s),
       i as (insert into intake (id, job_id, name, place, state, blob_id) select '${ID}', '${JOB}', 'a', '{}', 'waiting', id from b),
       o as (insert into output (id, job_id, spec, docket, file_name, state) values ('${ID}', '${JOB}', '{}', '{}', 'a', 'waiting'))
       insert into run (id, recipe, vals, file_name, state) values ('${ID}', '{}', '{}', 'a', 'waiting')`,
    );
  });
  const passes = (kind: keyof typeof TABLE, seconds: number) =>
    db().query(
      `update ${TABLE[kind]} set seen_at = seen_at - make_interval(secs => $1), not_before = not_before - make_interval(secs => $1)`,
      [seconds],
    );

  describe.each(WORK_KINDS)('%s', (kind) => {
    const id = idOf(kind);

    test('of many who ask at once one gets it; it can be told of, and ended once', async () => {
      const all = await Promise.all(Array.from({ length: 8 }, () => claim(kind, id)));
      const [mine, ...others] = all.filter((each) => each !== undefined);
      expect(others).toEqual([]);
      expect(await claimNext(kind)).toBeUndefined();
      expect(await tend(mine!, { doing: 'writing', done: 1, total: 2 })).toBe(true);
      expect(await endClaim(db(), mine!, 'done')).toBe(true);
      expect(await endClaim(db(), mine!, 'failed')).toBe(false);
      expect([await waitingFor(kind), await claim(kind, id)]).toEqual([[], undefined]);
    });

    test('waiting is not silence, and a worker that is heard of keeps it', async () => {
      await passes(kind, 3600);
      await releaseSilent();
      const mine = (await claimNext(kind))!;
      expect(mine.tries).toBe(1);
      await passes(kind, SILENT_SECONDS - 2);
      await releaseSilent();
      expect(await tend(mine, QUIET)).toBe(true);
    });

    test('of a silent worker it goes to another, and the first may write nothing more', async () => {
      const lost = (await claim(kind, id))!;
      await passes(kind, SILENT_SECONDS + 1);
      await releaseSilent();
      expect(await tend(lost, QUIET)).toBe(false);
      const next = (await claim(kind, id))!;
      expect(next.tries).toBe(2);
      for (const late of [tend(lost, QUIET), endClaim(db(), lost, 'done')]) expect(await late).toBe(false);
      await tryLater(lost, { code: 'unforeseen' });
      await giveBack(lost);
      expect(await endClaim(db(), next, 'done')).toBe(true);
    });

    test('a try that failed waits a while; one given back does not count; what stands still begins anew when asked', async () => {
      await giveBack((await claim(kind, id))!);
      const first = (await claim(kind, id))!;
      expect(first.tries).toBe(1);
      await tryLater(first, { code: 'unforeseen' });
      expect(await claim(kind, id)).toBeUndefined();
      await passes(kind, 5);
      const second = (await claim(kind, id))!;
      await endClaim(db(), second, 'failed', { code: 'unforeseen' });
      await passes(kind, 3600);
      await releaseSilent();
      expect(await waitingFor(kind)).toEqual([]);
      expect(await beginAgain(kind, id)).toBe(true);
      expect(await claim(kind, id)).toMatchObject({ tries: 1 });
    });
  });

  test.each([-1, 1])('clocks that are %d h apart from the database’s decide nothing', async (hours) => {
    vi.useFakeTimers({ toFake: ['Date'], now: Date.now() + hours * 3_600_000 });
    try {
      const mine = (await claim('output', ID))!;
      await releaseSilent();
      expect(await tend(mine, QUIET)).toBe(true);
      await tryLater(mine, { code: 'unforeseen' });
      expect(await claim('output', ID)).toBeUndefined();
      await passes('output', SILENT_SECONDS + 5);
      const next = (await claim('output', ID))!;
      await passes('output', SILENT_SECONDS + 5);
      await releaseSilent();
      expect(await tend(next, QUIET)).toBe(false);
    } finally {
      vi.useRealTimers();
    }
  });

  describe('work at them', () => {
    const troubles: (string | undefined)[] = [];
    let tries = 0;
    const failing = (error: () => unknown): Worked => ({
      kind: 'output',
      carryOut: () => {
        tries++;
        return Promise.reject(error() as Error);
      },
      fail: (mine: Claim, trouble, kept) => {
        troubles.push(`${trouble.code}${kept ? ', kept' : ''}`);
        return endClaim(db(), mine, 'failed', trouble);
      },
    });
    const often = async (worked: Worked) => {
      for (let n = 0; n < MOST_TRIES + 3; n++) {
        await workOn(worked, ID);
        await passes('output', 60);
      }
    };
    beforeEach(() => {
      [tries, troubles.length] = [0, 0];
    });

    test.each([
      ['an unforeseen fault', () => new TypeError('x is not a function'), MOST_TRIES, 'unforeseen, kept'],
      [
        'a process that died',
        () => new FenceError({ code: 'stopped-early' }),
        MOST_TRIES,
        'stopped-early, kept',
      ],
      ['a bad file', () => new FenceError({ code: 'damaged' }), 1, 'damaged'],
      ['a full disk', () => Object.assign(new Error(), { code: 'ENOSPC' }), 1, 'disk-full, kept'],
    ])('%s: begun as often as it makes sense, then told', async (_, error, times, told) => {
      await often(failing(error));
      expect([tries, troubles]).toEqual([times, [told]]);
      const { rowCount } = await db().query('select from fault');
      expect(rowCount).toBe(times === MOST_TRIES ? MOST_TRIES : 0);
    });

    test('a claim that was lost is nobody’s failure; a worker that dies each time is told as such', async () => {
      await workOn(
        failing(() => new Lost()),
        ID,
      );
      for (let n = 1; n < MOST_TRIES; n++) {
        await passes('output', SILENT_SECONDS + 1);
        await releaseSilent();
        await claim('output', ID);
      }
      await passes('output', SILENT_SECONDS + 1);
      await releaseSilent();
      await workOn(
        failing(() => new Lost()),
        ID,
      );
      expect([tries, troubles]).toEqual([1, ['worker-died, kept']]);
    });

    test('a database that is away counts as no try', async () => {
      await often(failing(() => Object.assign(new Error(), { code: 'ECONNREFUSED' })));
      expect([tries, troubles]).toEqual([MOST_TRIES + 3, []]);
    });
  });
});
