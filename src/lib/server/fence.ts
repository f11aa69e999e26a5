import { spawn, type ChildProcessByStdio } from 'node:child_process';
import { readFile } from 'node:fs/promises';
import { constants, setPriority } from 'node:os';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import type { Readable, Writable } from 'node:stream';
import type { Trouble } from '../words/troubles';
import { FENCED_FLAGS, ROW_FLAGS } from './fenced/flags';
import type { OnDoing } from '../core/handover/doing';
import type { Said } from './fenced/protocol';
import { fenceUser, limitedByKernel } from './fenceUser';
import { keepToOwnCore } from './ownCore';

export interface FenceLimits {
  seconds: number;
  mb: number;
  /** The task is one of many in a row, shared out among workers: its process keeps to the worker's own core. */
  row?: true;
  /** The process ends with the task: it reads what nobody has surveyed yet. */
  once?: true;
  /** Nobody waits for it: all else that there is to do goes first, as far as the system can. */
  last?: true;
}

const LOOK_EVERY_MS = 100;
/** If more time than this passed between two looks, this process was paused itself, and the time does not count against the task. */
const PAUSE_MS = 2000;

/** Work in a fenced process ended badly. */
export class FenceError extends Error {
  constructor(
    readonly trouble: Trouble,
    /** The end of the process's standard error, if it failed in an unforeseen way. */
    readonly stderr?: string,
  ) {
    super(trouble.code);
  }
}

type Child = ChildProcessByStdio<Writable, Readable, Readable>;

/** The end of each process's standard error. */
const stderrs = new WeakMap<Child, string>();
const MOST_STDERR = 4000;
/** Failures for which the operator needs the process's standard error. */
const PUZZLING: ReadonlySet<string> = new Set(['stopped-early', 'unforeseen']);

/** A kind of process: the program it runs, whether it is made for many tasks in a row, and its processes that are idle. */
interface Kind {
  name: string;
  row: boolean;
  /** Whether one process is always there for the next task. */
  ready: boolean;
  idle: Idle[];
  /** Processes at a task after which they are idle again. */
  busy: number;
}
/** A process that waits for a task, and how many it has run; one that is not needed for ever leaves after a while. */
interface Idle {
  child: Child;
  tasks: number;
  leaves?: NodeJS.Timeout;
}
/**
 * A process that ended a task well gets the next one too: it has compiled what it runs through, and takes a fraction of the
 * time. It is replaced after so many tasks, and where it took so much memory, so that nothing it leaks or holds can build up.
 */
const MOST_TASKS = 2000;
const MOST_KEPT_MB = 400;
/** What a process holds counts against its next task: it may hold no more than this part of what one may take. */
const MOST_SHARE = 4;
/** One more than is to be ready leaves after so long without a task. */
const IDLE_MS = 15_000;

const kinds: Kind[] = [];
function kindOf(name: string, row = false): Kind {
  const known = kinds.find((kind) => kind.name === name && kind.row === row);
  if (known) return known;
  const made: Kind = { name, row, ready: false, idle: [], busy: 0 };
  kinds.push(made);
  return made;
}

/** Keeps a process for this kind of task there from now on, warmed up, so that no task waits for Node.js to start. */
export function keepReady(name: string): void {
  const kind = kindOf(name);
  kind.ready = true;
  standBy(kind);
}

/** Starts a process ahead of its task if one is wanted and missing; one that is at a task will be there for the next. */
function standBy(kind: Kind): void {
  kind.idle = kind.idle.filter(({ child }) => lives(child));
  if (kind.ready && !kind.busy && !kind.idle.length) kind.idle.push({ child: start(kind, true), tasks: 0 });
}

/** Kills the idle processes, and keeps none ready any more. */
export function dismissStandby(): void {
  for (const kind of kinds) {
    kind.ready = false;
    for (let one = takeIdle(kind); one; one = takeIdle(kind)) one.child.kill('SIGKILL');
  }
}

/** Whether a process is there still. */
const lives = ({ exitCode, signalCode }: Child): boolean => exitCode === null && signalCode === null;

/** Takes an idle process, so that no other task gets it; those that have died meanwhile are skipped. */
function takeIdle(kind: Kind): Idle | undefined {
  for (let found = kind.idle.pop(); found; found = kind.idle.pop()) {
    clearTimeout(found.leaves);
    if (lives(found.child)) return found;
  }
  return undefined;
}
function keepIdle(kind: Kind, child: Child, tasks: number): void {
  const one: Idle = { child, tasks };
  if (!kind.ready || kind.idle.length)
    one.leaves = setTimeout(() => {
      kind.idle = kind.idle.filter((each) => each !== one);
      child.kill('SIGKILL');
      standBy(kind);
    }, IDLE_MS).unref();
  kind.idle.push(one);
}

/**
 * A process for a task: an idle one, else one that begins now. The first of a row takes the one that is ready for single
 * tasks, and has one of its own made for the next.
 */
function processFor(kind: Kind): { from: Kind; child: Child; tasks: number } {
  const own = takeIdle(kind);
  if (own) return { from: kind, ...own };
  const single = kind.row
    ? kinds.find(({ name, row, ready }) => name === kind.name && !row && ready)
    : undefined;
  const lent = single && takeIdle(single);
  if (!single || !lent) return { from: kind, child: start(kind), tasks: 0 };
  keepIdle(kind, start(kind, true), 0);
  return { from: single, ...lent };
}

/** Processes that are kept to the worker's own core, as rows are; what is done by itself runs wherever there is room. */
const kept = new WeakSet<Child>();
function keepRowToOwnCore(child: Child, row: boolean): void {
  if (row === kept.has(child)) return;
  keepToOwnCore(child.pid!, row);
  kept[row ? 'add' : 'delete'](child);
}

function stepBack(pid: number): void {
  try {
    setPriority(pid, constants.priority.PRIORITY_LOW);
  } catch {
    // It ended meanwhile, or the system forbids it: it runs as it did.
  }
}

/** Looks at a process ten times a second, and stops it where it takes longer or more memory than it may. Time in which the machine slept does not count. */
function holdTo(limits: FenceLimits, child: Child, stop: (reason: Trouble) => void): NodeJS.Timeout {
  let [spentMs, lastLook] = [0, performance.now()];
  return setInterval(async () => {
    const now = performance.now();
    spentMs += Math.min(now - lastLook, PAUSE_MS);
    lastLook = now;
    if (spentMs > limits.seconds * 1000) stop({ code: 'too-slow', data: { seconds: limits.seconds } });
    if ((await residentMb(child.pid!)) > limits.mb)
      stop({ code: 'too-much-memory', data: { mb: limits.mb } });
  }, LOOK_EVERY_MS);
}

/**
 * Runs `src/lib/server/fenced/NAME.ts` in a process of its own with a limit on time and memory (its resident size,
 * looked at ten times a second). A file that makes it run away takes nothing else along.
 * Returns the memory it took at its peak. Throws FenceError.
 */
export async function runInFence(
  name: string,
  task: unknown,
  limits: FenceLimits,
  signal?: AbortSignal,
  onProgress?: OnDoing,
): Promise<{ peakMb: number }> {
  const { from, child, tasks } = processFor(kindOf(name, limits.row));
  const returns = limits.once ? 0 : 1;
  from.busy += returns;
  keepRowToOwnCore(child, limits.row ?? false);
  if (limits.last) stepBack(child.pid!);
  let peakMb = 0;
  let trouble: Trouble | undefined = { code: 'stopped-early' };
  let stopped = false;
  const stop = (reason: Trouble) => {
    if (stopped) return;
    stopped = true;
    trouble = reason;
    child.kill('SIGKILL');
  };
  const look = holdTo(limits, child, stop);
  const abort = () => stop({ code: 'cancelled' });
  signal?.addEventListener('abort', abort);
  const words = createInterface({ input: child.stdout });
  try {
    child.stdin.write(`${JSON.stringify(task)}\n`);
    for await (const line of words) {
      const said: Said = JSON.parse(line);
      if (stopped) continue;
      if ('progress' in said) {
        onProgress?.(...said.progress);
        continue;
      }
      if ('trouble' in said) trouble = said.trouble;
      else [trouble, peakMb] = [undefined, said.peakMb];
      // This is the final message: there is no need to wait for the process to exit.
      break;
    }
    if (trouble) throw new FenceError(trouble, PUZZLING.has(trouble.code) ? stderrs.get(child) : undefined);
    return { peakMb };
  } finally {
    clearInterval(look);
    signal?.removeEventListener('abort', abort);
    words.close();
    from.busy -= returns;
    if (
      !limits.once &&
      !trouble &&
      !stopped &&
      tasks + 1 < MOST_TASKS &&
      peakMb <= Math.min(MOST_KEPT_MB, limits.mb / MOST_SHARE)
    )
      keepIdle(from, child, tasks + 1);
    else {
      child.kill('SIGKILL');
      standBy(from);
    }
  }
}

function start({ name, row }: Kind, ahead = false): Child {
  // What reads files from outside has no business with the database.
  const { DATABASE_URL: _, ...env } = process.env;
  const node = [process.execPath, ...(row ? ROW_FLAGS : FENCED_FLAGS), ...command(name)];
  const [program, ...args] = limitedByKernel(node);
  const child = spawn(program!, args, {
    stdio: ['pipe', 'pipe', 'pipe'],
    env: { ...env, ...(ahead ? { FOLDER_STANDBY: row ? 'row' : 'single' } : {}) },
    ...fenceUser(),
  });
  child.stdin.on('error', () => undefined);
  child.stderr.setEncoding('utf8').on('data', (text: string) => {
    stderrs.set(child, `${stderrs.get(child) ?? ''}${text}`.slice(-MOST_STDERR));
  });
  // A worker that has a row is kept itself, and what it starts would be too.
  keepToOwnCore(child.pid!, false);
  return child;
}

/** The bundled program where one was built, else the source. */
const command = (name: string): string[] =>
  process.env.FOLDER_BUILT
    ? [join('build', 'tools', 'fenced', `${name}.mjs`)]
    : ['--import', 'tsx', join('src', 'lib', 'server', 'fenced', `${name}.ts`)];

async function residentMb(pid: number): Promise<number> {
  try {
    const pages = Number((await readFile(`/proc/${pid}/statm`, 'utf8')).split(' ')[1]);
    return (pages * 4096) / 1024 / 1024;
  } catch {
    return 0;
  }
}
