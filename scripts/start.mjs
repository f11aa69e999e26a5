// npm start: everything from a fresh machine to a running Folder. Safe to repeat.
import { createServer } from 'node:net';
import { availableParallelism } from 'node:os';
import { chdir } from 'node:process';
import { dirname, join } from 'node:path';
import { buildProgram, installPackages, run, runBeside } from './lib/build.mjs';
import { needPackages } from './lib/debian.mjs';
import { Supervisor } from './lib/supervise.mjs';
import { WEB, WORKER, workerEnv } from './lib/worker.mjs';

chdir(join(dirname(import.meta.filename), '..'));
const { HOST = '127.0.0.1', PORT = '3000' } = process.env;

// A worker is one thread, so as many as there are cores; each keeps processes standing by, so no more than four by themselves.
const workers = Number(process.env.FOLDER_WORKERS ?? Math.min(4, availableParallelism()));
if (!Number.isInteger(workers) || workers < 1) {
  console.error(
    `FOLDER_WORKERS is ${process.env.FOLDER_WORKERS}, but some worker has to make the outputs. Say how many: FOLDER_WORKERS=2 npm start`,
  );
  process.exit(2);
}
await mustBeFree();
process.env.FOLDER_DROPS ??= join(process.cwd(), '.folder', 'drops');
const ownDatabase = !process.env.DATABASE_URL;
if (ownDatabase) needPackages(['postgresql']);
installPackages();

let database;
if (ownDatabase) {
  const { startPostgres } = await import('./lib/postgres.mjs');
  database = await startPostgres(process.env.FOLDER_CLUSTER ?? 'postgres');
  process.env.DATABASE_URL = database.url;
}

const programs = new Supervisor();
let stopping = false;
async function stop(status) {
  if (stopping) return;
  stopping = true;
  await programs.stop();
  database?.stop();
  process.exit(status);
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop(0));

await untilDatabaseIsThere();
// The database is set up, and the demo drawn, while the program is built.
const settingUp = runBeside('node', [
  '--import',
  'tsx',
  'demo/load.ts',
  ...(process.env.FOLDER_NO_DEMO ? ['--never'] : []),
]);
buildProgram();
await settingUp;
database?.keep();
if (await mustAddPeople()) {
  console.error(
    `At ${HOST} Folder can be reached from other machines, and nobody has an account yet, so it does not start. Give yourself one, then start again:\n\n  npm run user -- add NAME\n`,
  );
  await stop(1);
}

const environment = (part, more = {}) => ({
  ...process.env,
  ...more,
  HOST,
  PORT,
  FOLDER_PART: part,
  FOLDER_BUILT: '1',
  NODE_ENV: 'production',
  BODY_SIZE_LIMIT: 'Infinity',
  SHUTDOWN_TIMEOUT: '2',
  ORIGIN: process.env.ORIGIN ?? `http://${nameOf(HOST)}:${PORT}`,
});
programs.keep('web server', WEB, environment('web'));
for (let n = 0; n < workers; n++)
  programs.keep(`worker ${n + 1}`, WORKER, environment(`worker ${n + 1}`, workerEnv(n)));

const address = `http://${nameOf(HOST)}:${PORT}`;
for (let tries = 0; tries < 300 && !stopping; tries++) {
  try {
    await fetch(`${address}/healthz`);
    console.log(`Folder is at ${address}   (Ctrl-C stops it)`);
    break;
  } catch {
    await new Promise((done) => setTimeout(done, 100));
  }
}

/** The name that browsers of this machine reach HOST by. */
function nameOf(host) {
  if (host === '0.0.0.0' || host === '::') return 'localhost';
  return host.includes(':') ? `[${host}]` : host;
}

/** Where others can reach Folder, somebody must be able to sign in. */
async function mustAddPeople() {
  const needs = run('node', ['--import', 'tsx', 'scripts/needsPeople.ts'], { answers: true });
  return needs.trim() === 'yes';
}

/** Another program on the port would make the web server end again and again. */
async function mustBeFree() {
  const taken = await new Promise((done) => {
    const server = createServer();
    server.once('error', (error) => done(error));
    server.listen(Number(PORT), HOST, () => server.close(() => done(undefined)));
  });
  if (!taken) return;
  console.error(
    taken.code === 'EADDRINUSE'
      ? `Port ${PORT} is taken by another program, perhaps by a Folder that runs already. Name another one: PORT=3001 npm start`
      : `Folder cannot listen at ${HOST}:${PORT} (${taken.code}). Name an address and a port of this machine: HOST=127.0.0.1 PORT=3001 npm start`,
  );
  process.exit(1);
}

/** A database of one's own may start later than Folder, or be away just now. */
async function untilDatabaseIsThere() {
  const { default: pg } = await import('pg');
  for (let said = false; !stopping; said = true) {
    const client = new pg.Client({
      connectionString: process.env.DATABASE_URL,
      connectionTimeoutMillis: 5000,
    });
    client.on('error', () => undefined);
    try {
      await client.connect();
      await client.query('select 1');
      await client.end();
      return;
    } catch (error) {
      await client.end().catch(() => undefined);
      // A wrong password or name does not mend itself.
      if (['28P01', '28000', '3D000'].includes(error.code)) {
        console.error(`The database refuses Folder: ${error.message}. Mend DATABASE_URL, then start again.`);
        process.exit(1);
      }
      if (!said)
        console.error(`The database does not answer (${error.message || error.code}). Folder waits for it.`);
      await new Promise((done) => setTimeout(done, 1000));
    }
  }
}
