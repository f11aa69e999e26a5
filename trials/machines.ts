/**
 * Three machines, in network namespaces of this one: web server and database on one, a worker on each of the two others. 200
 * files are given to a recipe; the link of one worker is cut for 20 s, the other worker is killed and started again. Says what
 * came of it. Exit status 1 unless there are 200 results, each once. Wants root and Debian's iproute2.
 * Run by hand: npm run trial:machines
 */
import { spawn, type ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { appendFileSync, closeSync, mkdtempSync, openSync, writeFileSync } from 'node:fs';
import { once } from 'node:events';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { markedPdf } from '../tests/outside';
import { sh } from './running';

const FILES = 200;
const CUT_SECONDS = 20;
const NET = '10.77.0';
const [HOME, FIRST, SECOND] = ['folder-home', 'folder-one', 'folder-two'] as const;
const ADDRESS = { [HOME]: `${NET}.1`, [FIRST]: `${NET}.2`, [SECOND]: `${NET}.3` };
const PORT = 3000;
const DB_PORT = 5433;
const log = join(tmpdir(), `folder-machines-${process.pid}.log`);
const ip = (...args: string[]) => sh('ip', ...args);
const began = Date.now();
const say = (what: string) =>
  console.log(`${((Date.now() - began) / 1000).toFixed(1).padStart(6)} s  ${what}`);

const { postgresPrograms } = (await import('../scripts/lib/debian.mjs' as string)) as {
  postgresPrograms: () => string;
};
const { WORKER } = (await import('../scripts/lib/worker.mjs' as string)) as { WORKER: string[] };
const programs: ChildProcess[] = [];

/** Runs a program on a machine. */
function on(machine: string, command: string[], env: NodeJS.ProcessEnv = {}): ChildProcess {
  const out = openSync(log, 'a');
  const program = spawn('ip', ['netns', 'exec', machine, ...command], {
    stdio: ['ignore', out, out],
    env: { ...process.env, ...env },
  });
  closeSync(out);
  programs.push(program);
  return program;
}

function cable(): void {
  for (const machine of [HOME, FIRST, SECOND]) ip('netns', 'add', machine);
  ip('-n', HOME, 'link', 'add', 'hub', 'type', 'bridge');
  ip('-n', HOME, 'addr', 'add', `${ADDRESS[HOME]}/24`, 'dev', 'hub');
  for (const name of ['hub', 'lo']) ip('-n', HOME, 'link', 'set', name, 'up');
  for (const machine of [FIRST, SECOND]) {
    const port = `to-${machine.slice(7)}`;
    ip('-n', HOME, 'link', 'add', port, 'type', 'veth', 'peer', 'name', 'net', 'netns', machine);
    ip('-n', HOME, 'link', 'set', port, 'master', 'hub', 'up');
    ip('-n', machine, 'addr', 'add', `${ADDRESS[machine]}/24`, 'dev', 'net');
    for (const name of ['net', 'lo']) ip('-n', machine, 'link', 'set', name, 'up');
  }
}

function uncable(): void {
  for (const machine of [HOME, FIRST, SECOND])
    try {
      ip('netns', 'del', machine);
    } catch {
      // It was never made.
    }
}

/** A database that the other machines reach. */
async function startDatabase(): Promise<string> {
  const data = mkdtempSync('/var/tmp/folder-machines-');
  sh('chown', 'postgres', data);
  const as = (...command: string[]) => ['runuser', '-u', 'postgres', '--', ...command];
  const bin = postgresPrograms();
  sh(
    ...(as(
      join(bin, 'initdb'),
      '-D',
      data,
      '-U',
      'folder',
      '-E',
      'UTF8',
      '--locale=C.UTF-8',
      '-A',
      'trust',
    ) as [string, ...string[]]),
  );
  appendFileSync(join(data, 'pg_hba.conf'), `host all all ${NET}.0/24 trust\n`);
  on(
    HOME,
    as(
      join(bin, 'postgres'),
      '-D',
      data,
      '-p',
      String(DB_PORT),
      '-c',
      `listen_addresses=${ADDRESS[HOME]}`,
      '-c',
      'unix_socket_directories=',
    ),
  );
  const url = `postgresql://folder@${ADDRESS[HOME]}:${DB_PORT}/postgres`;
  for (let tries = 0; tries < 60; tries++) {
    const program = on(HOME, [process.execPath, '--import', 'tsx', 'demo/load.ts', '--never'], {
      DATABASE_URL: url,
    });
    const [status] = (await once(program, 'exit')) as [number];
    if (status === 0) return url;
    await wait(500);
  }
  throw new Error(`the database does not answer; see ${log}`);
}

/** Asks the web server, from its own machine; `body` is JSON, or `@` and the path of a file. */
function ask<T>(method: string, path: string, body: string): T {
  const type = body.startsWith('@') ? 'application/octet-stream' : 'application/json';
  const curl = [
    'curl',
    '-sf',
    '--max-time',
    '20',
    '-X',
    method,
    '-H',
    `content-type: ${type}`,
    '--data-binary',
    body,
  ];
  return JSON.parse(sh('ip', 'netns', 'exec', HOME, ...curl, `http://127.0.0.1:${PORT}${path}`)) as T;
}

uncable();
let status = 1;
try {
  cable();
  const url = await startDatabase();
  const env = { DATABASE_URL: url, FOLDER_BUILT: '1', NODE_ENV: 'production', BODY_SIZE_LIMIT: 'Infinity' };
  on(HOME, [process.execPath, 'build/index.js'], {
    ...env,
    HOST: '127.0.0.1',
    PORT: String(PORT),
    ORIGIN: `http://127.0.0.1:${PORT}`,
  });
  say(
    'web server and database on one machine; a worker on each of two others comes once all files are there',
  );
  const workerOn = (machine: string) =>
    on(machine, [process.execPath, ...WORKER], {
      ...env,
      FOLDER_DROPS: mkdtempSync(join(tmpdir(), 'folder-drops-')),
    });
  const query = (sql: string): string[] =>
    sh('ip', 'netns', 'exec', HOME, join(postgresPrograms(), 'psql'), url, '-qAtc', sql)
      .trim()
      .split('\n')
      .filter(Boolean);
  await wait(3000);
  const folder = mkdtempSync(join(tmpdir(), 'folder-files-'));
  ask(
    'PUT',
    '/api/recipes',
    JSON.stringify({
      recipe: 1,
      name: 'Bleed',
      steps: [{ id: 'b', kind: 'bleed', pages: 'all', head: 9, foot: 9, spine: 9, fore: 9 }],
      outputs: [{ kind: 'pages', crop: 'trim' }],
    }),
  );
  const batch = randomUUID();
  const path = join(folder, 'file.pdf');
  for (let n = 0; n < FILES; n++) {
    writeFileSync(path, await markedPdf(4 + (n % 9), { prefix: `M${n} ` }));
    ask('POST', `/api/runs?recipe=Bleed&batch=${batch}&name=${n}.pdf`, `@${path}`);
  }
  say(`${FILES} files were given`);
  workerOn(FIRST);
  let second = workerOn(SECOND);
  const done = () => Number(query("select count(*) from run where state = 'done'")[0]);
  const until = async (least: number, seconds = 240) => {
    for (let n = 0; n < seconds * 2 && done() < least; n++) await wait(500);
  };
  await until(20);
  ip('-n', HOME, 'link', 'set', 'to-one', 'down');
  say(`${done()} done; the link of the first worker is cut`);
  await wait(5000);
  sh('pkill', '-9', '-P', String(second.pid));
  second.kill('SIGKILL');
  say(`${done()} done; the second worker is killed`);
  await wait((CUT_SECONDS - 5) * 1000);
  ip('-n', HOME, 'link', 'set', 'to-one', 'up');
  say(`${done()} done; the link is back after ${CUT_SECONDS} s`);
  await wait(5000);
  second = workerOn(SECOND);
  say(`${done()} done; a second worker is started again`);
  await until(FILES);
  const [states, jobs, outputs, files200] = [
    query('select state, count(*) from run group by 1 order by 1').join(' '),
    query('select count(*) from job')[0],
    query("select count(*) from output where state = 'done'")[0],
    query('select count(distinct b.sha256) from output_file f join blob b on b.id = f.blob_id')[0],
  ];
  const tries = query('select tries, count(*) from run group by 1 order by 1').join(' ');
  say(
    `runs: ${states}; jobs: ${jobs}; outputs: ${outputs}; different files that came out: ${files200}; tries|runs: ${tries}`,
  );
  status = [jobs, outputs, files200].every((count) => Number(count) === FILES) && done() === FILES ? 0 : 1;
  say(status ? 'WRONG' : `${FILES} results, each once.`);
} finally {
  for (const program of programs) program.kill('SIGTERM');
  await wait(1500);
  for (const machine of [FIRST, SECOND, HOME])
    try {
      for (const pid of sh('ip', 'netns', 'pids', machine).trim().split('\n').filter(Boolean))
        process.kill(Number(pid), 'SIGKILL');
    } catch {
      // It has ended.
    }
  uncable();
}
process.exit(status);
