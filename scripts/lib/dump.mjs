import { spawn } from 'node:child_process';
import { createReadStream, createWriteStream, existsSync, renameSync, rmSync } from 'node:fs';
import { once } from 'node:events';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { postgresPrograms } from './debian.mjs';

/** What is no work of anybody's, and is made anew: messages of the queue, who is there just now, who is signed in. */
const LEFT_OUT = [
  '--exclude-schema=queue',
  ...['presence', 'worker', 'session', 'sign_in_failure'].map(
    (table) => `--exclude-table-data=public.${table}`,
  ),
];
/** Files are packed already: more than a little effort gains nothing. */
const PACKED = '--compress=1';

/** A program of PostgreSQL with the address of the database in its environment, where no list of processes shows the password. */
function program(name, url, args, stdio) {
  const { hostname, port, username, password, pathname } = new URL(url);
  return spawn(join(postgresPrograms() ?? '', name), args, {
    stdio,
    env: {
      ...process.env,
      PGHOST: hostname.replace(/^\[|\]$/g, ''),
      PGPORT: port || '5432',
      PGUSER: decodeURIComponent(username),
      PGPASSWORD: decodeURIComponent(password),
      PGDATABASE: decodeURIComponent(pathname.slice(1)),
    },
  });
}

/** Waits for a program to end well; what it said on standard error is the reason otherwise. */
async function ended(child, name) {
  let said = '';
  child.stderr.setEncoding('utf8').on('data', (text) => (said = `${said}${text}`.slice(-2000)));
  const [status] = await once(child, 'close');
  if (status !== 0) throw new Error(`${name} ended with ${status}: ${said.trim()}`);
}

/** Writes all that the database holds to a file, as it was at one moment, while Folder runs. The file is there whole or not at all. */
export async function backup(url, file) {
  const part = `${file}.part`;
  const child = program(
    'pg_dump',
    url,
    ['--format=custom', PACKED, '--no-owner', '--no-privileges', ...LEFT_OUT],
    ['ignore', 'pipe', 'pipe'],
  );
  try {
    await Promise.all([
      pipeline(child.stdout, createWriteStream(part, { mode: 0o600 })),
      ended(child, 'pg_dump'),
    ]);
    renameSync(part, file);
  } catch (error) {
    child.kill();
    rmSync(part, { force: true });
    throw error;
  }
}

/** Puts a backup in the place of all that the database holds, in one transaction: where that fails, it stays as it was. */
export async function restore(url, file) {
  if (!existsSync(file)) throw new Error(`there is no file ${file}`);
  // The script that pg_restore makes is run by psql, after what clears the place, in one transaction with it.
  const script = program(
    'pg_restore',
    url,
    ['--file=-', '--no-owner', '--no-privileges'],
    ['pipe', 'pipe', 'pipe'],
  );
  const psql = program(
    'psql',
    url,
    ['--quiet', '--no-psqlrc', '--single-transaction', '--set=ON_ERROR_STOP=1', '--output=/dev/null'],
    ['pipe', 'ignore', 'pipe'],
  );
  psql.stdin.write(
    'drop schema if exists queue cascade; drop schema public cascade; create schema public;\n',
  );
  const feeding = pipeline(createReadStream(file), script.stdin).catch(() => undefined);
  // Where pg_restore fails, psql must not commit what came until then.
  const failed = ended(script, 'pg_restore').catch((error) => {
    psql.kill('SIGKILL');
    throw error;
  });
  script.stdout.pipe(psql.stdin, { end: false });
  psql.stdin.on('error', () => undefined);
  await Promise.all([feeding, failed.then(() => psql.stdin.end()), ended(psql, 'psql')]);
}
