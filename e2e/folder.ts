import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { createServer } from 'node:net';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';

const { WEB, WORKER } = (await import('../scripts/lib/worker.mjs' as string)) as Record<
  'WEB' | 'WORKER',
  string[]
>;

/** All that one run of tests starts: its processes have one parent. */
const RUN = process.ppid;
let made = 0;

/** Makes a database on a server, a copy of another one where that is named, and says its name. */
async function makeDatabase(client: pg.Client, template?: string): Promise<string> {
  const name = `e2e_${process.pid}_${Date.now()}_${made++}`;
  await client.query(`create database ${name}${template ? ` template ${template}` : ''}`);
  return name;
}

/**
 * The database that new ones are copies of: set up, with the demo where it is wanted, once for all test files of a run.
 * Whoever comes first makes it; it gets its name when it is ready.
 */
async function templateOf(client: pg.Client, server: string, load: '--always' | '--never'): Promise<string> {
  const name = `e2e_template_${RUN}_${load === '--always' ? 'demo' : 'empty'}`;
  await client.query('select pg_advisory_lock(hashtext($1))', [name]);
  try {
    const { rows } = await client.query('select from pg_database where datname = $1', [name]);
    if (rows.length) return name;
    const database = await makeDatabase(client);
    const setUp = spawnSync(process.execPath, ['--import', 'tsx', 'demo/load.ts', load], {
      env: {
        ...process.env,
        DATABASE_URL: at(server, database),
        FOLDER_DROPS: mkdtempSync(join(tmpdir(), 'folder-drops-')),
        FOLDER_BUILT: '1',
        NODE_ENV: 'production',
      },
      encoding: 'utf8',
    });
    if (setUp.status !== 0) throw new Error(setUp.stderr);
    await client.query(`alter database ${database} rename to ${name}`);
    return name;
  } finally {
    await client.query('select pg_advisory_unlock(hashtext($1))', [name]);
  }
}

/** The address of a database on the server of another one. */
function at(server: string, database: string): string {
  const url = new URL(server);
  url.pathname = `/${database}`;
  return url.href;
}

/** A whole Folder for one test file: a database of its own, web server and worker. */
export class Folder {
  programs: ChildProcess[] = [];
  /** Under which its drop folders are. */
  readonly drops = mkdtempSync(join(tmpdir(), 'folder-drops-'));
  private constructor(
    readonly databaseUrl: string,
    readonly port: number,
    private readonly more: NodeJS.ProcessEnv,
  ) {}

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  /** `server`: where its database is made; `named`: by which name people reach it, so that they sign in; `epoch`: the moment that its files say; `ready`: with processes that stand by. */
  static async start({
    demo = false,
    server = process.env.DATABASE_URL,
    named,
    epoch,
    ready = false,
  }: {
    demo?: boolean;
    server?: string;
    named?: string;
    epoch?: string;
    ready?: boolean;
  } = {}): Promise<Folder> {
    if (!server) throw new Error('DATABASE_URL is not set: run the tests with npm test');
    const client = new pg.Client({ connectionString: server });
    await client.connect();
    let database: string;
    try {
      const template = await templateOf(client, server, demo ? '--always' : '--never');
      database = await makeDatabase(client, template);
    } finally {
      await client.end();
    }
    const port = await freePort();
    const more = {
      ...(named ? { ORIGIN: `http://${named}:${port}` } : {}),
      ...(epoch ? { SOURCE_DATE_EPOCH: epoch } : {}),
      ...(ready ? { FOLDER_READY: '1' } : {}),
    };
    const folder = new Folder(at(server, database), port, more);
    await folder.run();
    return folder;
  }

  /** Starts web server and worker. */
  async run(): Promise<void> {
    this.startWorker();
    await this.runWeb();
  }

  /** Starts the web server, and waits until it answers. */
  async runWeb(): Promise<ChildProcess> {
    const web = this.launch(...WEB);
    for (let tries = 0; tries < 150; tries++) {
      if (
        await fetch(`${this.url}/healthz`).then(
          () => true,
          () => false,
        )
      )
        return web;
      await new Promise((done) => setTimeout(done, 100));
    }
    throw new Error('the web server does not answer');
  }

  /** Starts one more worker, which can be ended by itself. */
  startWorker(): ChildProcess {
    return this.launch(...WORKER);
  }

  private launch(...command: string[]): ChildProcess {
    const program = spawn(process.execPath, command, {
      env: this.environment(),
      stdio: ['ignore', 'ignore', 'inherit'],
    });
    this.programs.push(program);
    return program;
  }

  /** Ends both, at once and without warning, as a power cut would. */
  async kill(signal: NodeJS.Signals = 'SIGKILL'): Promise<void> {
    const ends = this.programs
      .filter((program) => program.exitCode === null && program.signalCode === null)
      .map((program) => once(program, 'exit'));
    for (const program of this.programs) program.kill(signal);
    await Promise.all(ends);
    this.programs = [];
  }

  async query<Row extends pg.QueryResultRow>(sql: string): Promise<Row[]> {
    const client = new pg.Client({ connectionString: this.databaseUrl });
    await client.connect();
    try {
      return (await client.query<Row>(sql)).rows;
    } finally {
      await client.end();
    }
  }

  /**
   * Asks the web server as a program does that is no browser. Each time on a connection of its own: on one that is kept
   * open, a request can meet the server closing it.
   */
  ask(method: string, path: string, body?: object): Promise<Response> {
    const raw = body instanceof Uint8Array;
    return fetch(`${this.url}${path}`, {
      method,
      ...(body === undefined ? {} : { body: raw ? Buffer.from(body) : JSON.stringify(body) }),
      headers: {
        'content-type': raw ? 'application/pdf' : 'application/json',
        origin: this.url,
        connection: 'close',
      },
    });
  }

  /** What is answered to `ask`; anything but success is an error. */
  async send<T>(method: string, path: string, body?: object): Promise<T> {
    const answer = await this.ask(method, path, body);
    if (answer.status !== 200) throw new Error(`${method} ${path}: ${answer.status} ${await answer.text()}`);
    return (await answer.json()) as T;
  }

  private environment(): NodeJS.ProcessEnv {
    return {
      ...process.env,
      DATABASE_URL: this.databaseUrl,
      FOLDER_DROPS: this.drops,
      PORT: String(this.port),
      HOST: '127.0.0.1',
      ORIGIN: this.url,
      FOLDER_BUILT: '1',
      // Getting warm takes both cores of a small machine, again for each of many short-lived Folders.
      FOLDER_READY: '0',
      NODE_ENV: 'production',
      BODY_SIZE_LIMIT: 'Infinity',
      SHUTDOWN_TIMEOUT: '1',
      ...this.more,
    };
  }
}

const freePort = (): Promise<number> =>
  new Promise((done, fail) => {
    const server = createServer().once('error', fail);
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address() as { port: number };
      server.close(() => done(port));
    });
  });
