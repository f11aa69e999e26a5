import pg from 'pg';

export type Db = pg.Pool | pg.PoolClient;

let pool: pg.Pool | undefined;

/** The pool of connections to `DATABASE_URL`. */
export function db(): pg.Pool {
  if (!process.env.DATABASE_URL)
    throw new Error('DATABASE_URL is not set. Start with npm start, which sets it.');
  if (!pool) {
    pool = new pg.Pool({ connectionString: process.env.DATABASE_URL, max: 10 });
    // An idle connection that the database closes is replaced by the next query; unheard, its error would end the process.
    pool.on('error', (error) => console.error('database:', error.message));
  }
  return pool;
}

/** Closes the pool. */
export async function closeDb(): Promise<void> {
  await pool?.end();
  pool = undefined;
}

/** Runs `work` in one transaction; whatever it throws takes everything back. */
export async function transaction<T>(work: (client: pg.PoolClient) => Promise<T>): Promise<T> {
  const client = await db().connect();
  try {
    await client.query('begin');
    const result = await work(client);
    await client.query('commit');
    return result;
  } catch (error) {
    await client.query('rollback').catch(() => undefined);
    throw error;
  } finally {
    client.release();
  }
}
