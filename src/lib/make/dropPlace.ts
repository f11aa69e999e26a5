import type { Stats } from 'node:fs';
import { readdir } from 'node:fs/promises';

/** Where in a watched directory files are while they are worked, and where they end. */
export const PLACES = { working: 'working', done: 'done', failed: 'failed' } as const;
/** What tells whoever looks into `failed` why a file is there. */
export const WHY = 'why.txt';
/** Where one try of a run puts what it makes, beside the file, until it is known to be the one that counts. */
export const placeOfTry = (token: string): string => `.${token}`;
/** A file has stopped growing when it was the same for so long. */
const QUIET_MS = 1000;
/** A set of scans is whole when nothing came for so long: scanners take less for a sheet. By practice. */
export const SET_QUIET_MS = 20_000;

/** What a process saw of files that may still grow, by path. */
export class Growing {
  private readonly seen = new Map<string, { size: number; changed: number; since: number }>();

  /** Whether a file has stopped growing, as far as this process has watched it. */
  isQuiet(
    path: string,
    { size, mtimeMs }: Pick<Stats, 'size' | 'mtimeMs'>,
    quiet: number = QUIET_MS,
  ): boolean {
    const now = Date.now();
    const known = this.seen.get(path);
    if (known?.size === size && known.changed === mtimeMs) return now - known.since >= quiet;
    this.seen.set(path, { size, changed: mtimeMs, since: now });
    return false;
  }

  /** Forgets the files that `isGone` says are no longer there. */
  forget(isGone: (path: string) => boolean): void {
    for (const path of this.seen.keys()) if (isGone(path)) this.seen.delete(path);
  }
}

/** A name that nothing in any of the directories has: the one given, or with a number before its ending. */
export async function freeIn(directories: readonly string[], name: string): Promise<string> {
  const taken = new Set(
    (await Promise.all(directories.map((directory) => readdir(directory))))
      .flat()
      .map((each) => each.toLowerCase()),
  );
  if (!taken.has(name.toLowerCase())) return name;
  const [, stem, ending] = /^(.*?)(\.[^.]*)?$/s.exec(name)!;
  let n = 2;
  while (taken.has(`${stem} ${n}${ending ?? ''}`.toLowerCase())) n++;
  return `${stem} ${n}${ending ?? ''}`;
}
