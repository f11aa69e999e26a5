import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import {
  closeSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  readdirSync,
  readFileSync,
  renameSync,
  writeFileSync,
} from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';

/** A Folder that was started as people start it, with a database of its own, to be killed in part. */
export class Running {
  readonly drops = mkdtempSync(join(tmpdir(), 'folder-trial-drops-'));
  readonly log = join(this.drops, '..', `folder-trial-${process.pid}.log`);
  private program: ChildProcess | undefined;
  constructor(
    readonly port: number,
    private readonly environment: NodeJS.ProcessEnv = {},
  ) {}

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  async start(): Promise<void> {
    const out = openSync(this.log, 'a');
    this.program = spawn(process.execPath, ['scripts/start.mjs'], {
      stdio: ['ignore', out, out],
      env: {
        ...process.env,
        FOLDER_NO_DEMO: '1',
        FOLDER_DROPS: this.drops,
        PORT: String(this.port),
        ...this.environment,
      },
    });
    closeSync(out);
    await this.isWell(180);
  }

  async stop(): Promise<void> {
    const { program } = this;
    if (!program || program.exitCode !== null) return;
    const ended = once(program, 'exit');
    program.kill('SIGTERM');
    await ended;
  }

  /** Waits until all parts are there. */
  async isWell(seconds = 60): Promise<void> {
    for (let tries = 0; tries < seconds * 4; tries++) {
      const { ok } = await this.get<{ ok: boolean }>('/healthz').catch(() => ({ ok: false }));
      if (ok) return;
      await wait(250);
    }
    throw new Error(`not well after ${seconds} s; see ${this.log}`);
  }

  async get<T>(path: string): Promise<T> {
    return this.call<T>('GET', path);
  }

  /** Asks for something and returns what was answered; throws where that says no. */
  async call<T>(method: string, path: string, body?: unknown): Promise<T> {
    const answer = await fetch(this.url + path, {
      method,
      signal: AbortSignal.timeout(20_000),
      ...(body === undefined
        ? {}
        : body instanceof Uint8Array
          ? { body: body as BodyInit, headers: { 'content-type': 'application/octet-stream' } }
          : { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }),
    });
    if (!answer.ok) throw new Refusal(answer.status, await answer.text());
    return (await answer.json()) as T;
  }

  /** The same, again and again while nobody answers. For what may be done twice. */
  async insist<T>(work: () => Promise<T>): Promise<T> {
    for (;;)
      try {
        return await work();
      } catch (error) {
        if (error instanceof Refusal && error.status < 500) throw error;
        await wait(300);
      }
  }

  /** The numbers of the running processes of one kind. */
  pidsOf(kind: Kind): number[] {
    return processes()
      .filter(
        ({ command, pid }) =>
          IS[kind].test(command) && (kind === 'postgres' ? this.ownsDatabase(command) : this.owns(pid)),
      )
      .map(({ pid }) => pid);
  }

  /** Lays a file into a drop folder, all of it at once. */
  drop(name: string, file: string, bytes: Uint8Array): void {
    const [hidden, shown] = [`.${file}`, file].map((each) => join(this.drops, name, each));
    mkdirSync(join(this.drops, name), { recursive: true });
    writeFileSync(hidden!, bytes);
    renameSync(hidden!, shown!);
  }

  /** What the processes of one kind hold, in MB, what several share only once (proc(5), `Pss`); the database with what it started. */
  heldMb(kind: Kind): number {
    const own = this.pidsOf(kind);
    const all =
      kind === 'postgres'
        ? [...own, ...processes().flatMap(({ pid }) => (own.includes(parentOf(pid)) ? [pid] : []))]
        : own;
    return Math.round(all.reduce((sum, pid) => sum + pssOf(pid), 0));
  }

  /** Descends from the start command. */
  private owns(pid: number): boolean {
    for (let at = pid; at > 1; at = parentOf(at)) if (at === this.program?.pid) return true;
    return false;
  }

  private ownsDatabase(command: string): boolean {
    return command.includes(this.environment.FOLDER_CLUSTER ?? '/postgres/');
  }
}

const IS = {
  web: /build\/index\.js/,
  worker: /worker\/main\.mjs/,
  fenced: /build\/tools\/fenced\//,
  postgres: /postgres\0-D\0/,
};
type Kind = keyof typeof IS;
export const KINDS = ['web', 'worker', 'fenced', 'postgres'] as const satisfies Kind[];

function pssOf(pid: number): number {
  try {
    return Number(/^Pss:\s+(\d+)/m.exec(readFileSync(`/proc/${pid}/smaps_rollup`, 'utf8'))?.[1] ?? 0) / 1024;
  } catch {
    return 0;
  }
}

export class Refusal extends Error {
  constructor(
    readonly status: number,
    readonly text: string,
  ) {
    super(`${status} ${text.slice(0, 200)}`);
  }
}

function processes(): { pid: number; command: string }[] {
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .flatMap((name) => {
      try {
        return [{ pid: Number(name), command: readFileSync(`/proc/${name}/cmdline`, 'utf8') }];
      } catch {
        return [];
      }
    });
}

function parentOf(pid: number): number {
  try {
    return Number(/\) \S (\d+)/.exec(readFileSync(`/proc/${pid}/stat`, 'utf8'))![1]);
  } catch {
    return 0;
  }
}

export const freePort = (): Promise<number> =>
  new Promise((done, fail) => {
    const server = createServer().once('error', fail);
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address() as { port: number };
      server.close(() => done(port));
    });
  });

/** Runs a command and returns what it says; throws where it fails. */
export function sh(command: string, ...args: string[]): string {
  const { status, stdout, stderr } = spawnSync(command, args, { encoding: 'utf8', maxBuffer: 1 << 28 });
  if (status !== 0) throw new Error(`${command} ${args.join(' ')}: ${stderr}`);
  return stdout;
}
