import { spawn } from 'node:child_process';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import type { Trouble } from '../words/errors';
import { WRITER_FLAGS } from './fenced/flags';
import type { Said } from './fenced/protocol';

export interface FenceLimits {
  seconds: number;
  mb: number;
}

const LOOK_EVERY_MS = 100;

/** Work in a fenced process ended badly. */
export class FenceError extends Error {
  constructor(readonly trouble: Trouble) {
    super(trouble.code);
  }
}

/**
 * Runs `src/lib/server/fenced/NAME.ts` in a process of its own with a limit on time and memory (its resident size,
 * looked at ten times a second). A file that makes it run away takes nothing else along. Throws FenceError.
 */
export async function runInFence(name: string, task: unknown, limits: FenceLimits, signal?: AbortSignal, onProgress?: (done: number, total: number) => void): Promise<void> {
  const child = spawn(process.execPath, [...WRITER_FLAGS, ...command(name)], { stdio: ['pipe', 'pipe', 'ignore'] });
  let trouble: Trouble | undefined = { code: 'stopped-early' };
  const stop = (reason: Trouble) => {
    trouble = reason;
    child.kill('SIGKILL');
    stopped = true;
  };
  let stopped = false;
  const late = setTimeout(() => stop({ code: 'too-slow', data: { seconds: limits.seconds } }), limits.seconds * 1000);
  const look = setInterval(async () => {
    if ((await residentMb(child.pid!)) > limits.mb && !stopped) stop({ code: 'too-much-memory', data: { mb: limits.mb } });
  }, LOOK_EVERY_MS);
  const abort = () => stop({ code: 'cancelled' });
  signal?.addEventListener('abort', abort);
  try {
    child.stdin.on('error', () => undefined);
    child.stdin.end(JSON.stringify(task));
    for await (const line of createInterface({ input: child.stdout })) {
      const said = JSON.parse(line) as Said;
      if (stopped) continue;
      if ('progress' in said) onProgress?.(...said.progress);
      else trouble = 'trouble' in said ? said.trouble : undefined;
    }
    if (child.exitCode === null && child.signalCode === null) await new Promise((done) => child.once('exit', done));
    if (trouble) throw new FenceError(trouble);
  } finally {
    clearTimeout(late);
    clearInterval(look);
    signal?.removeEventListener('abort', abort);
    child.kill('SIGKILL');
  }
}

/** The bundled program where one was built, else the source. */
const command = (name: string): string[] =>
  process.env.FOLDER_BUILT ? [join('build', 'tools', 'fenced', `${name}.mjs`)] : ['--import', 'tsx', join('src', 'lib', 'server', 'fenced', `${name}.ts`)];

async function residentMb(pid: number): Promise<number> {
  try {
    const pages = Number((await readFile(`/proc/${pid}/statm`, 'utf8')).split(' ')[1]);
    return (pages * 4096) / 1024 / 1024;
  } catch {
    return 0;
  }
}
