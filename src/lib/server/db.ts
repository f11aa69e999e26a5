import pg from 'pg';
import { setTimeout as wait } from 'node:timers/promises';
import { isAway } from './away';
import { log } from './log';

export type Db = pg.Pool | pg.PoolClient;

/** Connections a process holds at most. Nothing that waits for somebody outside may hold one. */
const MOST_CONNECTIONS = 10;
/** A database that is there answers within this time; a query that takes longer is given up. */
const CONNECT_MS = 5000;
const QUERY_MS = 120_000;
const RETRY_MS = 500;

let pool: pg.Pool | undefined;

/** The pool of connections to `DATABASE_URL`. */
export function db(): pg.Pool {
  if (!process.env.DATABASE_URL)
    throw new Error('DATABASE_URL is not set. Start with npm start, which sets it.');
  if (!pool) {
    pool = new pg.Pool({
      connectionString: process.env.DATABASE_URL,
      max: MOST_CONNECTIONS,
      connectionTimeoutMillis: CONNECT_MS,
      query_timeout: Number(process.env.FOLDER_QUERY_MS ?? QUERY_MS),
      keepAlive: true,
    });
    // Both kinds of connections, idle ones and those in use, report that the database went away. Without a listener
    // that would end the process; the query that is under way fails by itself, and the next one connects anew.
    pool.on('error', heard);
    pool.on('connect', (client) => client.on('error', heard));
  }
  return pool;
}

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;
/** An id that a query can look for: nothing, which no row has, for text that is none. Looked for as text, all rows would be gone through. */
export const idFrom = (text: string): string | null => (UUID.test(text) ? text : null);

const heard = (error: Error) => log.warn({ reason: error.message }, 'a database connection was lost');

/** Closes the pool. */
export async function closeDb(): Promise<void> {
  const closing = pool;
  pool = undefined;
  await closing?.end();
}

/** Does `work` again and again while the database is away, until `goesOn` says no. */
export async function onceThere<T>(work: () => Promise<T>, goesOn: () => boolean = () => true): Promise<T> {
  for (;;)
    try {
      return await work();
    } catch (error) {
      if (!isAway(error) || !goesOn()) throw error;
      await wait(RETRY_MS);
    }
}

/** Runs `work` in one transaction; whatever it throws takes everything back. */
export async function transaction<T>(work: (client: pg.PoolClient) => Promise<T>): Promise<T> {
  const client = await db().connect();
  let broken: Error | undefined;
  try {
    await client.query('begin');
    const result = await work(client);
    await client.query('commit');
    for (const each of afterwards.get(client) ?? []) each();
    return result;
  } catch (error) {
    // On a connection that is gone a rollback would wait for ever: the database rolls back by itself.
    if (isAway(error)) broken = error as Error;
    else await client.query('rollback').catch((lost: Error) => (broken = lost));
    throw error;
  } finally {
    afterwards.delete(client);
    client.release(broken);
  }
}

const afterwards = new WeakMap<pg.PoolClient, (() => void)[]>();
/** Has something done once the transaction has ended well; nobody waits for it. */
export function onceCommitted(client: pg.PoolClient, work: () => void): void {
  afterwards.set(client, [...(afterwards.get(client) ?? []), work]);
}

/**
 * Hears what is notified on a channel (PostgreSQL, LISTEN), on a connection of its own. That is made anew when it is
 * lost; then `onheard` is told without words, since something may have been missed. Returns what ends it.
 */
export function listen(channel: string, onheard: (words?: string) => void): () => Promise<void> {
  let now: pg.Client | undefined;
  let goesOn = true;
  const hear = async (): Promise<void> => {
    const client = new pg.Client({
      connectionString: process.env.DATABASE_URL!,
      connectionTimeoutMillis: CONNECT_MS,
      keepAlive: true,
    });
    const lost = new Promise<void>((end) => client.on('error', () => end()).on('end', () => end()));
    client.on('notification', ({ payload }) => onheard(payload));
    now = client;
    try {
      await client.connect();
      await client.query(`listen ${client.escapeIdentifier(channel)}`);
      onheard();
      await lost;
    } finally {
      now = undefined;
      await client.end().catch(() => undefined);
    }
  };
  void (async () => {
    while (goesOn) {
      // While the database is away there is nothing to say: whoever asks it for something does.
      await hear().catch((error: Error) => isAway(error) || heard(error));
      if (goesOn) await wait(RETRY_MS);
    }
  })();
  return async () => {
    goesOn = false;
    await now?.end().catch(() => undefined);
  };
}
