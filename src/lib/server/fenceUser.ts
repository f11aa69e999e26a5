import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { chown } from 'node:fs/promises';
import { log } from './log';

/** Limits that the kernel holds fenced processes to (prlimit of util-linux), besides those that are watched: beyond what any task needs. */
const KERNEL_LIMITS = {
  /** Bytes of writable private memory. A task is killed long before it gets there, unless it allocates everything at once. */
  data: 8 * 2 ** 30,
  /** Seconds of processor time, of all threads, over all the tasks that one process gets. */
  cpu: 7200,
  /** Bytes of one file that is written. */
  fsize: 16 * 2 ** 30,
  /** Open files. */
  nofile: 256,
  /** No memory dumps: they would hold customers' files. */
  core: 0,
};
const PRLIMIT = '/usr/bin/prlimit';

/** The command that runs a command under the kernel's limits; the command itself where the system has no such tool. */
export const limitedByKernel = (command: readonly string[]): string[] =>
  existsSync(PRLIMIT)
    ? [PRLIMIT, ...Object.entries(KERNEL_LIMITS).map(([name, most]) => `--${name}=${most}`), '--', ...command]
    : [...command];

/** Who fenced processes run as, where they do not run as this process does. */
interface User {
  uid: number;
  gid: number;
}

let known: User | undefined | null = null;

/**
 * The unprivileged user that fenced processes run as: `FOLDER_FENCE_USER`, else nobody. Nothing if this process is not
 * root, or where that user could not read the program; then this is said in the log, once.
 */
export function fenceUser(): Partial<User> {
  if (known === null) known = findUser();
  return known ?? {};
}

function findUser(): User | undefined {
  if (process.getuid?.() !== 0) return undefined;
  const name = process.env.FOLDER_FENCE_USER ?? 'nobody';
  const id = (flag: string) => Number(spawnSync('id', [flag, name], { encoding: 'utf8' }).stdout || NaN);
  const user = { uid: id('-u'), gid: id('-g') };
  if (Number.isNaN(user.uid)) {
    log.warn({ name }, 'files from outside are read as root: there is no such user to read them as');
    return undefined;
  }
  const can = (flag: string, path: string) =>
    spawnSync('test', [flag, path], { ...user, cwd: '/' }).status === 0;
  const shut = [
    ['-x', process.execPath],
    ['-r', 'package.json'],
    ['-x', 'node_modules'],
    ...(process.env.FOLDER_BUILT ? [['-x', 'build/tools']] : []),
  ].find(([flag, path]) => !can(flag!, path!.startsWith('/') ? path! : `${process.cwd()}/${path}`));
  if (!shut) return user;
  log.warn(
    { path: shut[1], name },
    'files from outside are read as root: their user cannot reach the program',
  );
  return undefined;
}

/** Lets fenced processes write in a directory of this process. */
export async function openToFence(folder: string): Promise<void> {
  const { uid, gid } = fenceUser();
  if (uid !== undefined && gid !== undefined) await chown(folder, uid, gid);
}
