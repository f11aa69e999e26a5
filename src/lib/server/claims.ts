import { db, idFrom, type Db } from './db';
import type { Trouble } from '../words/troubles';
import { firstOf, keysOf } from '../core/entries';

/**
 * Long work, kind by kind: the table whose rows are its pieces. All these tables have the same columns for it: `state`,
 * `token`, `tries`, `not_before`, `seen_at`, `doing`, `done`, `total`, `trouble`, `finished_at`.
 */
const TABLES = { survey: 'intake', measure: 'measure', output: 'output', run: 'run' } as const;
export type WorkKind = keyof typeof TABLES;
export const WORK_KINDS: WorkKind[] = keysOf(TABLES);

/** A worker that holds a piece of work and has sent no heartbeat for this long is considered dead. Pieces that wait have no heartbeat. */
export const SILENT_SECONDS = 10;
/** Most tries of a piece of work. After the last one it stays failed until somebody asks for another try. */
export const MOST_TRIES = 3;
/** A failed piece is retried after this long, times the number of its tries. */
const RETRY_SECONDS = 1;

/** A claim on a piece of work. Only the holder of the token in its row may write its result. */
export interface Claim {
  kind: WorkKind;
  id: string;
  token: string;
  /** The number of tries, including this one. */
  tries: number;
}

/** How far a piece is. */
export interface Progress {
  doing?: string;
  done: number;
  total: number;
}

const TAKE =
  "state = 'working', token = gen_random_uuid(), tries = tries + 1, seen_at = now(), doing = null, done = 0, total = 0";
const CAN_BEGIN = "state = 'waiting' and not_before <= now()";
/** $1 is the piece, $2 the token. */
const IS_HELD = "id = $1 and token = $2 and state = 'working'";

/** Claims a piece of work. At most one caller succeeds; undefined if it is not waiting any more, or is to be retried later. */
export async function claim(kind: WorkKind, id: string): Promise<Claim | undefined> {
  const { rows } = await db().query<{ token: string; tries: number }>(
    `update ${TABLES[kind]} set ${TAKE} where id = $1 and ${CAN_BEGIN} returning token, tries`,
    [id],
  );
  return rows[0] && { kind, id, ...rows[0] };
}

/** Claims the oldest piece of a kind that waits. */
export async function claimNext(kind: WorkKind): Promise<Claim | undefined> {
  const table = TABLES[kind];
  const { rows } = await db().query<{ id: string; token: string; tries: number }>(
    `update ${table} set ${TAKE} where id = (
       select id from ${table} where ${CAN_BEGIN} order by created_at, id limit 1 for update skip locked)
     returning id, token, tries`,
  );
  return rows[0] && { kind, ...rows[0] };
}

/** Sends a heartbeat with the progress of a piece. Returns false if the claim was lost. */
export async function tend({ kind, id, token }: Claim, { doing, done, total }: Progress): Promise<boolean> {
  const { rowCount } = await db().query(
    `update ${TABLES[kind]} set doing = $3, done = $4, total = $5, seen_at = now() where ${IS_HELD}`,
    [id, token, doing ?? null, done, total],
  );
  return rowCount === 1;
}

/**
 * Completes a piece in the transaction that writes its result. Returns false if the claim was lost; then that
 * transaction must be rolled back.
 */
export async function endClaim(
  client: Db,
  { kind, id, token }: Claim,
  state: 'done' | 'failed' | 'surveyed',
  trouble?: Trouble,
): Promise<boolean> {
  const { rowCount } = await client.query(
    `update ${TABLES[kind]} set state = $3, trouble = $4, doing = null, finished_at = now() where ${IS_HELD}`,
    [id, token, state, trouble ? JSON.stringify(trouble) : null],
  );
  return rowCount === 1;
}

/** Releases a piece after a failed try; it is retried after a while. */
export async function tryLater({ kind, id, token }: Claim, trouble: Trouble): Promise<void> {
  await db().query(
    `update ${TABLES[kind]} set state = 'waiting', token = null, trouble = $3,
       not_before = now() + make_interval(secs => $4::double precision * tries) where ${IS_HELD}`,
    [id, token, JSON.stringify(trouble), RETRY_SECONDS],
  );
}

/** Releases a piece that was interrupted from outside; this try does not count. */
export async function giveBack({ kind, id, token }: Claim): Promise<void> {
  await db().query(
    `update ${TABLES[kind]} set state = 'waiting', token = null, tries = greatest(tries - 1, 0) where ${IS_HELD}`,
    [id, token],
  );
}

/** Releases pieces whose worker sends no heartbeats any more: killed, cut off or stopped. */
export async function releaseSilent(): Promise<void> {
  const released = Object.values(TABLES).map(
    (table) =>
      `${table}_released as (update ${table} set state = 'waiting', token = null
       where state = 'working' and seen_at < now() - make_interval(secs => $1))`,
  );
  await db().query(`with ${released.join(', ')} select`, [SILENT_SECONDS]);
}

/** The pieces that could be begun now, of each kind the oldest first. */
export async function allWaiting(): Promise<{ kind: WorkKind; id: string }[]> {
  const waiting = WORK_KINDS.map(
    (kind) => `select '${kind}' as kind, id::text, created_at from ${TABLES[kind]} where ${CAN_BEGIN}`,
  );
  const { rows } = await db().query<{ kind: WorkKind; id: string }>(
    `select kind, id from (${waiting.join(' union all ')}) as w order by kind, created_at, id`,
  );
  return rows;
}

/** Why the last try of a piece failed. */
export async function lastTrouble({ kind, id }: Claim): Promise<Trouble | undefined> {
  const { rows } = await db().query<{ trouble: Trouble | null }>(
    `select trouble from ${TABLES[kind]} where id = $1`,
    [id],
  );
  return rows[0]?.trouble ?? undefined;
}

/** Puts a failed piece back in the queue with no tries counted. Returns false if it had not failed. `also` is a further condition in SQL. */
export async function beginAgain(kind: WorkKind, id: string, also = 'true'): Promise<boolean> {
  const { rowCount } = await db().query(
    `update ${TABLES[kind]} set state = 'waiting', token = null, tries = 0, not_before = now(), trouble = null, finished_at = null
     where id = $1 and state = 'failed' and ${also}`,
    // Measures go by the SHA-256 of their files.
    [kind === 'measure' ? id : idFrom(id)],
  );
  return rowCount === 1;
}

/** How many pieces of a kind wait and are being worked, and for how long the oldest of those that wait could have been begun. */
export async function workCounts(
  kind: WorkKind,
): Promise<{ waiting: number; working: number; oldestSeconds: number }> {
  const { rows } = await db().query<{ waiting: number; working: number; oldest: number | null }>(
    `select count(*) filter (where state = 'waiting')::integer as waiting,
       count(*) filter (where state = 'working')::integer as working,
       extract(epoch from now() - min(greatest(created_at, not_before)) filter (where ${CAN_BEGIN}))::integer as oldest
     from ${TABLES[kind]} where state in ('waiting', 'working')`,
  );
  const { waiting, working, oldest } = firstOf(rows);
  return { waiting, working, oldestSeconds: oldest ?? 0 };
}
