import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { transaction } from './db';

const FOLDER = join(process.cwd(), 'db', 'migrations');
/** Any number will do, as long as two starting processes use the same. */
const LOCK = 7_340_021;

/** Runs the migrations that have not run yet, in the order of their numbers, in one transaction. */
export async function migrate(): Promise<void> {
  await transaction(async (client) => {
    await client.query('select pg_advisory_xact_lock($1)', [LOCK]);
    await client.query(
      'create table if not exists migration (name text primary key, ran_at timestamptz not null default now())',
    );
    const ran = new Set(
      (await client.query<{ name: string }>('select name from migration')).rows.map(({ name }) => name),
    );
    for (const name of readdirSync(FOLDER)
      .filter((file) => file.endsWith('.sql'))
      .sort()) {
      if (ran.has(name)) continue;
      await client.query(readFileSync(join(FOLDER, name), 'utf8'));
      await client.query('insert into migration (name) values ($1)', [name]);
    }
  });
}
