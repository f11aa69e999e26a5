import { chmod, mkdtemp, readdir, rm, stat } from 'node:fs/promises';
import { hostname, tmpdir } from 'node:os';
import { join } from 'node:path';
import { openToFence } from './fenceUser';
import { codeOf } from '../core/unknown';

/** This machine in a file's name: where several share the directory, each sweeps only what its own processes left. */
const HOST = hostname().replace(/[^A-Za-z0-9.-]/g, '_');
const PREFIX = `folder-work-${HOST}-`;

/** What this process has of unfinished work, by a name that nobody can have taken before. */
let own: Promise<string> | undefined;

/** Does a piece of work in a new directory, which is gone afterwards. */
export async function inWorkFolder<T>(work: (folder: string) => Promise<T>): Promise<T> {
  const folder = await makeFolder();
  try {
    return await work(folder);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

async function makeFolder(again = true): Promise<string> {
  own ??= makeOwn();
  try {
    const folder = await mkdtemp(join(await own, 'work-'));
    await openToFence(folder);
    return folder;
  } catch (error) {
    own = undefined;
    // Somebody cleaned up, as systems do with what lies long.
    if (again && codeOf(error) === 'ENOENT') return makeFolder(false);
    throw error;
  }
}

async function makeOwn(): Promise<string> {
  const folder = await mkdtemp(join(tmpdir(), `${PREFIX}${process.pid}-`));
  // Others may go through it to what is theirs, but see nothing of what is there.
  await chmod(folder, 0o711);
  return folder;
}

/** Removes what this process still has. */
export async function leaveNoWork(): Promise<void> {
  const mine = await own?.catch(() => undefined);
  own = undefined;
  if (mine) await rm(mine, { recursive: true, force: true });
}

/** Removes what processes of this user left behind that were killed in the middle of their work. */
export async function sweepWorkFolders(): Promise<void> {
  for (const name of await readdir(tmpdir())) {
    if (!name.startsWith(PREFIX)) continue;
    const pid = Number(/^(\d+)-/.exec(name.slice(PREFIX.length))?.[1]);
    if (!pid || isAlive(pid)) continue;
    const left = join(tmpdir(), name);
    const seen = await stat(left).catch(() => undefined);
    if (seen && seen.uid === process.getuid?.()) await rm(left, { recursive: true, force: true });
  }
}

function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return codeOf(error) !== 'ESRCH';
  }
}
