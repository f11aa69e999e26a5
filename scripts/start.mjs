// npm start: everything from a fresh machine to a running Folder. Safe to repeat.
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { availableParallelism } from 'node:os';
import { chdir } from 'node:process';
import { dirname, join } from 'node:path';
import { buildProgram, installPackages, run } from './lib/build.mjs';
import { needPackages } from './lib/debian.mjs';
import { WORKER, workerEnv } from './lib/worker.mjs';

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
process.env.FOLDER_DROPS ??= join(process.cwd(), '.folder', 'drops');
const ownDatabase = !process.env.DATABASE_URL;
if (ownDatabase) needPackages(['postgresql']);
installPackages();
buildProgram();

let database;
if (ownDatabase) {
  const { startPostgres } = await import('./lib/postgres.mjs');
  database = await startPostgres('postgres');
  process.env.DATABASE_URL = database.url;
}

const programs = [];
let stopping = false;
async function stop(status) {
  if (stopping) return;
  stopping = true;
  const ends = programs
    .filter((program) => program.exitCode === null && program.signalCode === null)
    .map((program) => once(program, 'exit'));
  for (const program of programs) program.kill('SIGTERM');
  const hard = setTimeout(() => programs.forEach((program) => program.kill('SIGKILL')), 8000);
  await Promise.all(ends);
  clearTimeout(hard);
  database?.stop();
  process.exit(status);
}
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => void stop(0));

run('node', ['--import', 'tsx', 'demo/load.ts', ...(process.env.FOLDER_NO_DEMO ? ['--never'] : [])]);

// Children get their own process group, so that Ctrl-C reaches them once, from here, in order.
const start = (name, command, env = {}) => {
  const program = spawn(process.execPath, command, {
    stdio: 'inherit',
    detached: true,
    env: {
      ...process.env,
      ...env,
      HOST,
      PORT,
      FOLDER_BUILT: '1',
      NODE_ENV: 'production',
      BODY_SIZE_LIMIT: 'Infinity',
      SHUTDOWN_TIMEOUT: '2',
      ORIGIN: process.env.ORIGIN ?? `http://${HOST === '0.0.0.0' ? 'localhost' : HOST}:${PORT}`,
    },
  });
  program.on('exit', (status) => {
    if (stopping) return;
    console.error(
      `The ${name} ended by itself (status ${status}). Is port ${PORT} taken? Another one can be named: PORT=3001 npm start`,
    );
    void stop(1);
  });
  programs.push(program);
};
start('web server', ['build/index.js']);
for (let n = 0; n < workers; n++) start('worker', WORKER, workerEnv(n));

const address = `http://${HOST}:${PORT}`;
for (let tries = 0; tries < 100 && !stopping; tries++) {
  try {
    await fetch(`${address}/api/jobs`);
    console.log(`Folder is at ${address}   (Ctrl-C stops it)`);
    break;
  } catch {
    await new Promise((done) => setTimeout(done, 100));
  }
}
