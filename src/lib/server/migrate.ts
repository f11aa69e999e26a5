import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { JobSummary } from '../wire/told';
import { transaction } from './db';
import { foundBy } from './summary';

const FOLDER = join(process.cwd(), 'db', 'migrations');
/** Any number will do, as long as two starting processes use the same. */
const LOCK = 7_340_021;

/** The database was used by a newer Folder: this one would misread what that one wrote. */
export class NewerDatabase extends Error {
  constructor(names: readonly string[]) {
    super(
      `The database was brought up to date by a newer Folder (it has ${names.join(', ')}), and this one would damage what that one wrote. Start the newer Folder, or give this one a database of its own (DATABASE_URL), or restore a backup made before the upgrade.`,
    );
  }
}

/** Runs the migrations that have not run yet, in the order of their numbers, in one transaction. Throws NewerDatabase. */
export async function migrate(): Promise<void> {
  await transaction(async (client) => {
    await client.query('select pg_advisory_xact_lock($1)', [LOCK]);
    await client.query(
      'create table if not exists migration (name text primary key, ran_at timestamptz not null default now())',
    );
    const here = readdirSync(FOLDER)
      .filter((file) => file.endsWith('.sql'))
      .sort();
    const ran = new Set(
      (await client.query<{ name: string }>('select name from migration')).rows.map(({ name }) => name),
    );
    const newer = [...ran].filter((name) => !here.includes(name));
    if (newer.length) throw new NewerDatabase(newer);
    for (const name of here) {
      if (ran.has(name)) continue;
      await client.query(readFileSync(join(FOLDER, name), 'utf8'));
      await client.query('insert into migration (name) values ($1)', [name]);
    }
    const unsaid = await client.query<{ id: string; summary: JobSummary }>(
      'select id, summary from job where found_by is null',
    );
    for (const { id, summary } of unsaid.rows)
      await client.query('update job set found_by = $2 where id = $1', [id, foundBy(summary)]);
  });
}
