import { execFileSync, spawn, spawnSync } from 'node:child_process';
import { createHash, randomBytes } from 'node:crypto';
import { chmodSync, chownSync, existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { once } from 'node:events';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { dirname, join, resolve } from 'node:path';
import { postgresPrograms } from './debian.mjs';

/** How often it is looked whether the database is still there. */
const LOOK_MS = 1000;

/** PostgreSQL refuses to run as root: then it runs as the user that Debian's package made for it. */
function whoRunsIt() {
  if (process.getuid() !== 0) return {};
  const id = (flag) => Number(execFileSync('id', [flag, 'postgres'], { encoding: 'utf8' }));
  return { uid: id('-u'), gid: id('-g') };
}

/** A folder for the data that its user can reach: the project's own, else one that is always reachable. */
function folderFor(name, who) {
  const own = resolve('.folder', name);
  const elsewhere = join(
    tmpdir(),
    `folder-${createHash('sha256').update(process.cwd()).digest('hex').slice(0, 12)}`,
    name,
  );
  for (const folder of [own, elsewhere]) {
    mkdirSync(folder, { recursive: true });
    if (who.uid === undefined) return folder;
    for (const path of [dirname(folder), folder]) chmodSync(path, 0o755);
    chownSync(folder, who.uid, who.gid);
    if (spawnSync('test', ['-w', folder], { ...who, cwd: '/' }).status === 0) return folder;
  }
  throw new Error('no folder that the user of PostgreSQL can write to');
}

const freePort = () =>
  new Promise((done, fail) => {
    const server = createServer().once('error', fail);
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address();
      server.close(() => done(port));
    });
  });

/**
 * Starts a private PostgreSQL cluster on loopback, made when it is not there, and returns its address, how to stop it, and how
 * to keep it running. One that runs already is used as it is, and left to whoever started it.
 */
export async function startPostgres(name) {
  const programs = postgresPrograms();
  const who = whoRunsIt();
  const folder = folderFor(name, who);
  const data = join(folder, 'data');
  const passwordFile = join(folder, 'password');
  const run = (program, ...args) => {
    const { status, stdout, stderr } = spawnSync(join(programs, program), args, {
      ...who,
      cwd: '/',
      encoding: 'utf8',
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, LC_ALL: 'C.UTF-8' },
    });
    if (status !== 0) throw new Error(`${program}: ${stderr || stdout}`);
  };
  if (!existsSync(join(data, 'PG_VERSION'))) {
    rmSync(data, { recursive: true, force: true });
    writeFileSync(passwordFile, randomBytes(16).toString('hex'), { mode: 0o600 });
    if (who.uid !== undefined) chownSync(passwordFile, who.uid, who.gid);
    run(
      'initdb',
      '-D',
      data,
      '-U',
      'folder',
      '-E',
      'UTF8',
      '--locale=C.UTF-8',
      '-A',
      'scram-sha-256',
      `--pwfile=${passwordFile}`,
    );
  }
  const address = (port) =>
    `postgresql://folder:${readFileSync(passwordFile, 'utf8')}@127.0.0.1:${port}/postgres`;
  const running =
    spawnSync(join(programs, 'pg_ctl'), ['-D', data, 'status'], { ...who, cwd: '/' }).status === 0;
  if (running)
    return {
      url: address(Number(readFileSync(join(data, 'postmaster.pid'), 'utf8').split('\n')[3])),
      stop: () => undefined,
      keep: () => undefined,
      again: () => undefined,
    };
  const port = await freePort();
  const start = ['-D', data, '-w', '-t', '60', '-l', join(data, 'server.log'), '-o'];
  const settings = `-p ${port} -c listen_addresses=127.0.0.1 -c unix_socket_directories=''`;
  run('pg_ctl', ...start, settings, 'start');
  let watching;
  return {
    url: address(port),
    stop: () => {
      clearInterval(watching);
      try {
        run('pg_ctl', '-D', data, '-w', '-m', 'fast', 'stop');
      } catch {
        // It was just being started, or hangs: what it has acknowledged is on the disk, and it mends the rest when it starts.
        run('pg_ctl', '-D', data, '-w', '-m', 'immediate', 'stop');
      }
    },
    /** Starts it once more, on the same port. */
    again: () => run('pg_ctl', ...start, settings, 'start'),
    /** Starts the database again whenever it is not there, on the same port. */
    keep: () => {
      let looking = false;
      const pg = async (...args) => {
        const program = spawn(join(programs, 'pg_ctl'), args, {
          ...who,
          cwd: '/',
          stdio: 'ignore',
          env: { ...process.env, LC_ALL: 'C.UTF-8' },
        });
        return (await once(program, 'close'))[0];
      };
      watching = setInterval(async () => {
        if (looking) return;
        looking = true;
        try {
          if ((await pg('-D', data, 'status')) === 0) return;
          console.error('The database is not there. It is started again.');
          await pg(...start, settings, 'start');
        } finally {
          looking = false;
        }
      }, LOOK_MS);
    },
  };
}
