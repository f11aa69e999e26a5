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

const ENVIRONMENT = { ...process.env, LC_ALL: 'C.UTF-8' };

/** A cluster that nobody runs yet: its programs, who runs them, and where its data lie. */
class Cluster {
  constructor(name) {
    this.programs = postgresPrograms();
    this.who = whoRunsIt();
    const folder = folderFor(name, this.who);
    this.data = join(folder, 'data');
    this.passwordFile = join(folder, 'password');
  }

  run(program, ...args) {
    const { status, stdout, stderr } = spawnSync(join(this.programs, program), args, {
      ...this.who,
      cwd: '/',
      encoding: 'utf8',
      stdio: ['ignore', 'pipe', 'pipe'],
      env: ENVIRONMENT,
    });
    if (status !== 0) throw new Error(`${program}: ${stderr || stdout}`);
  }

  /** Makes the cluster where it is not there, or was only begun. */
  make() {
    const { data, passwordFile, who } = this;
    if (existsSync(join(data, 'PG_VERSION'))) return;
    rmSync(data, { recursive: true, force: true });
    writeFileSync(passwordFile, randomBytes(16).toString('hex'), { mode: 0o600 });
    if (who.uid !== undefined) chownSync(passwordFile, who.uid, who.gid);
    const locale = ['-E', 'UTF8', '--locale=C.UTF-8'];
    const password = ['-A', 'scram-sha-256', `--pwfile=${passwordFile}`];
    this.run('initdb', '-D', data, '-U', 'folder', ...locale, ...password);
  }

  address(port) {
    return `postgresql://folder:${readFileSync(this.passwordFile, 'utf8')}@127.0.0.1:${port}/postgres`;
  }

  /** The port on which it runs already; undefined if it does not. */
  runningPort() {
    const { status } = spawnSync(join(this.programs, 'pg_ctl'), ['-D', this.data, 'status'], {
      ...this.who,
      cwd: '/',
    });
    if (status !== 0) return undefined;
    return Number(readFileSync(join(this.data, 'postmaster.pid'), 'utf8').split('\n')[3]);
  }

  /** Runs pg_ctl beside everything else. Returns its exit code. */
  async control(...args) {
    const program = spawn(join(this.programs, 'pg_ctl'), args, {
      ...this.who,
      cwd: '/',
      stdio: 'ignore',
      env: ENVIRONMENT,
    });
    return (await once(program, 'close'))[0];
  }

  stop() {
    try {
      this.run('pg_ctl', '-D', this.data, '-w', '-m', 'fast', 'stop');
    } catch {
      // It was just being started, or hangs: what it has acknowledged is on the disk, and it mends the rest when it starts.
      this.run('pg_ctl', '-D', this.data, '-w', '-m', 'immediate', 'stop');
    }
  }
}

/**
 * Starts a private PostgreSQL cluster on loopback, made when it is not there, and returns its address, how to stop it, and how
 * to keep it running. One that runs already is used as it is, and left to whoever started it.
 */
export async function startPostgres(name) {
  const cluster = new Cluster(name);
  const { data } = cluster;
  cluster.make();
  const running = cluster.runningPort();
  if (running !== undefined)
    return {
      url: cluster.address(running),
      stop: () => undefined,
      keep: () => undefined,
      again: () => undefined,
    };
  const port = await freePort();
  const settings = `-p ${port} -c listen_addresses=127.0.0.1 -c unix_socket_directories=''`;
  const start = ['-D', data, '-w', '-t', '60', '-l', join(data, 'server.log'), '-o', settings, 'start'];
  cluster.run('pg_ctl', ...start);
  let watching;
  let looking = false;
  const look = async () => {
    if (looking) return;
    looking = true;
    try {
      if ((await cluster.control('-D', data, 'status')) === 0) return;
      console.error('The database is not there. It is started again.');
      await cluster.control(...start);
    } finally {
      looking = false;
    }
  };
  return {
    url: cluster.address(port),
    stop: () => {
      clearInterval(watching);
      cluster.stop();
    },
    /** Starts it once more, on the same port. */
    again: () => cluster.run('pg_ctl', ...start),
    /** Starts the database again whenever it is not there, on the same port. */
    keep: () => void (watching = setInterval(look, LOOK_MS)),
  };
}
