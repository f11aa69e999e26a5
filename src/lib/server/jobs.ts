import { troubleFrom } from '../words/troubles';
import type { PoolClient } from 'pg';
import { emptyDocket, filesOf, type Docket } from '../core/docket/docket';
import { DocketError, readDocket } from '../core/docket/readDocket';
import { actor } from './actor';
import { sweep } from './blobs';
import { db, idFrom, transaction, type Db } from './db';
import { Problem } from './problem';
import { judge } from './judge';
import { foundBy } from './summary';
import type { JobState } from '../wire/told';
import { firstOf } from '../core/entries';
import type { JobSummary } from '../wire/told';

/** States kept for undo; older ones are let go. */
const MOST_STATES = 500;
/** Most states shown ahead of the present one. */
const MOST_REDO = 20;

/** A docket that comes from outside, or from an older Folder. Throws Problem. */
export function docketFrom(value: unknown): Docket {
  try {
    return readDocket(value);
  } catch (error) {
    if (error instanceof DocketError) throw new Problem(400, troubleFrom(error));
    throw error;
  }
}

/** Starts a job with nothing in it, or with the given docket; `also` is done in the same transaction. */
export const createJob = (
  docket: Docket = emptyDocket('New job'),
  also?: (client: PoolClient, id: string) => Promise<void>,
): Promise<string> =>
  transaction(async (client) => {
    const { summary } = await judge(docket, client);
    const id = await createJobIn(client, docket, summary);
    await also?.(client, id);
    return id;
  });

/** The same in the caller's transaction, of a docket that is worked out. */
export async function createJobIn(client: PoolClient, docket: Docket, summary: JobSummary): Promise<string> {
  const { rows } = await client.query<{ id: string }>(
    'insert into job (summary, found_by) values ($1, $2) returning id',
    [JSON.stringify(summary), foundBy(summary)],
  );
  const id = firstOf(rows).id;
  await storeState(client, id, 0, docket);
  return id;
}

/** The one way in which a docket gets into the database: what could not be read again is refused. */
async function storeState(client: PoolClient, id: string, seq: number, docket: Docket): Promise<void> {
  await client.query('insert into docket_state (job_id, seq, docket, by) values ($1, $2, $3, $4)', [
    id,
    seq,
    JSON.stringify(readDocket(docket)),
    actor(),
  ]);
  await keepSources(client, id, docket);
}

/** A job. Throws Problem 404, or 422 where its docket cannot be read. */
export async function readJob(id: string, client: Db = db()): Promise<JobState> {
  const { rows } = await client.query<{
    revision: number;
    docket: Docket;
    by: string | null;
    undo: boolean;
  }>(
    `select j.revision, s.docket, s.by, exists (select from docket_state u where u.job_id = j.id and u.seq < j.at_seq) as undo
     from job j join docket_state s on s.job_id = j.id and s.seq = j.at_seq where j.id = $1`,
    [idFrom(id)],
  );
  if (!rows[0]) throw new Problem(404, { code: 'no-such-job' });
  const redo = await client.query<{ docket: Docket }>(
    'select s.docket from docket_state s join job j on j.id = s.job_id where s.job_id = $1 and s.seq > j.at_seq order by s.seq limit $2',
    [id, MOST_REDO],
  );
  return {
    id,
    revision: rows[0].revision,
    docket: stored(rows[0].docket),
    ...(rows[0].by ? { by: rows[0].by } : {}),
    canUndo: rows[0].undo,
    redo: readable(redo.rows.map(({ docket }) => docket)),
  };
}

/** The revision at which a job is. Throws Problem 404. */
export async function revisionOf(id: string): Promise<number> {
  const { rows } = await db().query<{ revision: number }>('select revision from job where id = $1', [
    idFrom(id),
  ]);
  if (!rows[0]) throw new Problem(404, { code: 'no-such-job' });
  return rows[0].revision;
}

/** A docket from the database. Throws Problem 422 if a newer Folder wrote it, or it is damaged. */
function stored(docket: unknown): Docket {
  try {
    return readDocket(docket);
  } catch (error) {
    if (!(error instanceof DocketError)) throw error;
    const code = error.code === 'docket-newer' ? 'job-newer' : 'job-damaged';
    throw new Problem(422, troubleFrom({ code, data: error.data }));
  }
}

/** Dockets up to the first that cannot be read. */
function readable(dockets: readonly unknown[]): Docket[] {
  const read: Docket[] = [];
  try {
    for (const docket of dockets) read.push(readDocket(docket));
  } catch (error) {
    if (!(error instanceof DocketError)) throw error;
  }
  return read;
}

interface Stored {
  docket: unknown;
  revision: number;
}
/** The present state of a job as it is stored, readable or not. */
async function storedState(id: string, client: Db): Promise<Stored | undefined> {
  const { rows } = await client.query<Stored>(
    'select s.docket, j.revision from job j join docket_state s on s.job_id = j.id and s.seq = j.at_seq where j.id = $1',
    [idFrom(id)],
  );
  return rows[0];
}

/** The docket of a job as it is stored, readable or not. Throws Problem 404. */
export async function rawDocket(id: string): Promise<unknown> {
  const state = await storedState(id, db());
  if (!state) throw new Problem(404, { code: 'no-such-job' });
  return state.docket;
}

/** Puts a new state of the docket in place of the one with `revision`. Throws Problem 409 with the present state when somebody was quicker. */
export async function saveDocket(id: string, revision: unknown, value: unknown): Promise<JobState> {
  const docket = docketFrom(value);
  return transaction(async (client) => {
    await lockJob(client, id, revisionFrom(revision));
    await pushState(client, id, docket);
    return readJob(id, client);
  });
}

/** Which state a change was made of. Throws Problem 400 if nothing says: it could overwrite what somebody else did. */
function revisionFrom(value: unknown): number {
  if (typeof value === 'number' && Number.isInteger(value)) return value;
  throw new Problem(400, { code: 'no-revision' });
}

/** Makes `docket` the job's next state; the caller holds the job's row. */
export async function pushState(client: PoolClient, id: string, docket: Docket): Promise<void> {
  const { rows } = await client.query<{ at_seq: number }>('select at_seq from job where id = $1', [id]);
  const seq = firstOf(rows).at_seq + 1;
  await client.query('delete from docket_state where job_id = $1 and (seq >= $2 or seq < $2 - $3::integer)', [
    id,
    seq,
    MOST_STATES,
  ]);
  await storeState(client, id, seq, docket);
  await stand(client, id, seq, docket);
}

/** Goes one state back or on. At the last state in that direction it stays. Throws Problem 409. */
export async function walk(id: string, revision: unknown, direction: 'undo' | 'redo'): Promise<JobState> {
  return transaction(async (client) => {
    await lockJob(client, id, revisionFrom(revision));
    const { rows } = await client.query<{ seq: number; docket: Docket }>(
      direction === 'undo'
        ? 'select s.seq, s.docket from docket_state s join job j on j.id = s.job_id where s.job_id = $1 and s.seq < j.at_seq order by s.seq desc limit 1'
        : 'select s.seq, s.docket from docket_state s join job j on j.id = s.job_id where s.job_id = $1 and s.seq > j.at_seq order by s.seq limit 1',
      [id],
    );
    if (rows[0]) await stand(client, id, rows[0].seq, stored(rows[0].docket));
    return readJob(id, client);
  });
}

/** A job like this one, with a docket of its own that begins where this one stands. */
export async function copyJob(id: string): Promise<string> {
  const { docket } = await readJob(id);
  return createJob({ ...docket, title: `${docket.title} (copy)`.slice(0, 200) });
}

/** Deletes a job. Its sources go too, but for those that other jobs use. */
export async function deleteJob(id: string): Promise<void> {
  await transaction(async (client) => {
    const { rowCount } = await client.query('delete from job where id = $1', [idFrom(id)]);
    if (!rowCount) throw new Problem(404, { code: 'no-such-job' });
    await sweep(client);
  });
}

/** Locks the job's row and, where a revision is given, makes sure that it is still the present one. */
export async function lockJob(client: PoolClient, id: string, revision?: number): Promise<void> {
  const present = await readJob(id, client);
  const { rows } = await client.query<{ revision: number }>(
    'select revision from job where id = $1 for update',
    [id],
  );
  if (revision === undefined || rows[0]?.revision === revision) return;
  throw new Problem(
    409,
    { code: 'stale' },
    { job: rows[0]?.revision === present.revision ? present : await readJob(id, client) },
  );
}

async function stand(client: PoolClient, id: string, seq: number, docket: Docket): Promise<void> {
  const { summary } = await judge(docket, client);
  await client.query(
    'update job set at_seq = $2, revision = revision + 1, changed_at = now(), summary = $3, found_by = $4 where id = $1',
    [id, seq, JSON.stringify(summary), foundBy(summary)],
  );
}

async function keepSources(client: PoolClient, id: string, docket: Docket): Promise<void> {
  await client.query(
    'insert into job_source (job_id, sha256) select $1, sha256 from source where sha256 = any($2) on conflict do nothing',
    [id, filesOf(docket)],
  );
}

/** The job's files are others than before though its docket is the same: whoever looks at it looks again. */
export async function seenAnew(client: PoolClient, id: string): Promise<void> {
  await client.query('update job set revision = revision + 1 where id = $1', [id]);
  await refreshSummary(client, id);
}

/**
 * Works out anew what the list of jobs shows of a job, which itself stays as it is. What is saved meanwhile stays, and is worked
 * out instead: that time under the job's lock, for which the next save waits.
 */
export async function refreshSummary(client: PoolClient, id: string): Promise<void> {
  if (await summarize(client, id)) return;
  await client.query('select from job where id = $1 for update', [id]);
  await summarize(client, id);
}

/** Returns false, and leaves the summary as it is, where the job was changed or deleted while it was worked out. */
async function summarize(client: PoolClient, id: string): Promise<boolean> {
  const state = await storedState(id, client);
  const docket = state && readable([state.docket])[0];
  // One that cannot be read is shown as it was when it could.
  if (!docket) return true;
  const { summary } = await judge(docket, client);
  const { rowCount } = await client.query(
    'update job set summary = $2, found_by = $3 where id = $1 and revision = $4',
    [id, JSON.stringify(summary), foundBy(summary), state.revision],
  );
  return rowCount === 1;
}
