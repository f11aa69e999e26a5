// npm run backup FILE: all jobs, files, outputs, recipes and accounts in one file, while Folder runs.
// npm run restore FILE: puts them back in the place of what is there; Folder must not run.
import { statSync } from 'node:fs';
import { closeDb, db } from '../src/lib/server/db';
import { migrate, NewerDatabase } from '../src/lib/server/migrate';
import { listWorkers } from '../src/lib/server/workers';
import { useOwnDatabase } from './ownDatabase';

const { backup, restore } = (await import('./lib/dump.mjs' as string)) as {
  backup: (url: string, file: string) => Promise<void>;
  restore: (url: string, file: string) => Promise<void>;
};

async function main([what, file]: string[]): Promise<number> {
  if (!file || (what !== 'backup' && what !== 'restore')) {
    console.error(`Say which file: npm run ${what ?? 'backup'} -- FILE`);
    return 2;
  }
  const url = process.env.DATABASE_URL!;
  if (what === 'backup') {
    await backup(url, file);
    console.log(`Kept in ${file}: ${(statSync(file).size / 2 ** 20).toFixed(1)} MB.`);
    return 0;
  }
  await migrate();
  if ((await listWorkers()).length) {
    console.error(
      'Folder runs on this database, and would write into what is being put back. Stop it, then try again.',
    );
    return 1;
  }
  await closeDb();
  await restore(url, file);
  try {
    await migrate();
  } catch (error) {
    if (!(error instanceof NewerDatabase)) throw error;
    console.error(`Put back. ${error.message}`);
    return 1;
  }
  const { rows } = await db().query<{ jobs: string }>('select count(*) as jobs from job');
  console.log(`Put back from ${file}: ${rows[0]!.jobs} jobs. Start Folder with npm start.`);
  return 0;
}

const stop = await useOwnDatabase();
try {
  process.exitCode = await main(process.argv.slice(2));
} catch (error) {
  console.error(`Not done, and nothing was changed: ${(error as Error).message}`);
  process.exitCode = 1;
} finally {
  await closeDb();
  stop();
}
