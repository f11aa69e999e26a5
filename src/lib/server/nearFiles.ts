import { createHash, randomUUID } from 'node:crypto';
import { constants, readFileSync, type Stats } from 'node:fs';
import {
  chmod,
  link,
  lstat,
  mkdir,
  open,
  readdir,
  readFile,
  rename,
  rm,
  stat,
  utimes,
  writeFile,
  type FileHandle,
} from 'node:fs/promises';
import { hostname, tmpdir } from 'node:os';
import { join } from 'node:path';
import { codeOf } from '../core/unknown';
import { blobToFile, fileBytes, hashOf } from './blobs';
import { db } from './db';

/*
 * Large files that arrived or were read lately lie in a directory of this machine too, by their SHA-256: whoever needs one again
 * does not fetch it anew. It may be deleted at any time. What lies there is checked before it is used, and again when it was
 * changed or the machine has started anew; beside each file lies what says as what it was checked.
 */

/** Smaller files are had as quickly from the database. */
const LEAST_BYTES = 4 << 20;
/** So much is kept, the longest unused goes first; and what nobody used for so long goes anyway. */
const MOST_BYTES = 2 * 2 ** 30;
const KEPT_MS = 30 * 60_000;

const place = (): string => join(tmpdir(), `folder-near-${hostname()}-${process.getuid?.() ?? 0}`);

/** The directory; undefined where it is somebody else's, or no directory. */
async function opened(): Promise<string | undefined> {
  const path = place();
  await mkdir(path, { mode: 0o711 }).catch((error: unknown) => {
    if (codeOf(error) !== 'EEXIST') throw error;
  });
  const seen = await lstat(path);
  return seen.isDirectory() && seen.uid === (process.getuid?.() ?? seen.uid) && !(seen.mode & 0o022)
    ? path
    : undefined;
}

/** Puts a blob's bytes in a file, from near where they are. The file may be one with what is kept: nobody writes in it. */
export async function nearToFile(blobId: string, path: string): Promise<void> {
  const { rows } = await db().query<{ sha256: string | null; size: string }>(
    'select sha256, size from blob where id = $1',
    [blobId],
  );
  const { sha256, size } = rows[0] ?? {};
  const near = sha256 && Number(size) >= LEAST_BYTES ? await opened().catch(() => undefined) : undefined;
  if (!near || !sha256) return blobToFile(blobId, path);
  const kept = join(near, sha256);
  if (await isThere(kept, path, sha256)) return;
  await blobToFile(blobId, path);
  await chmod(path, 0o444);
  await link(path, kept).catch(() => undefined);
  await tidyNear();
}

/** Links what is kept to a path, where it is what it is called. */
async function isThere(kept: string, path: string, sha256: string): Promise<boolean> {
  try {
    await link(kept, path);
  } catch {
    return false;
  }
  const seen = await stat(path);
  if (await isWhatItIsCalled(path, seen, sha256)) {
    // When it was changed stays as it is: what was checked is known by it.
    await utimes(kept, new Date(), seen.mtime).catch(() => undefined);
    return true;
  }
  await Promise.all([rm(path, { force: true }), rm(kept, { force: true })]);
  return false;
}

/** What was found to be what it is called, as it was then. */
const checked = new Map<string, string>();
const asItIs = ({ ino, mtimeMs, size }: Stats): string => `${STARTED} ${ino} ${mtimeMs} ${size}`;
/** Tells one start of the machine from the next: what was not on the disk by then may be anything. */
const STARTED = startOfMachine();
function startOfMachine(): string {
  try {
    return readFileSync('/proc/sys/kernel/random/boot_id', 'utf8').trim();
  } catch {
    return randomUUID();
  }
}
/** Beside a file lies as what it was checked. */
const CHECKED = '.checked';
const isNote = (name: string): boolean => name.endsWith(CHECKED);
const noteOf = (sha256: string): string => join(place(), `${sha256}${CHECKED}`);

async function isWhatItIsCalled(path: string, seen: Stats, sha256: string): Promise<boolean> {
  if (checked.get(sha256) === asItIs(seen)) return true;
  const said = await readFile(noteOf(sha256), 'utf8').catch(() => undefined);
  if (said === asItIs(seen)) checked.set(sha256, said);
  else if ((await hashOf(fileBytes(path))).sha256 === sha256) await sayChecked(sha256, seen);
  else return false;
  return true;
}

/** Lets other processes know. Where that fails, they check it themselves. */
async function sayChecked(sha256: string, seen: Stats): Promise<void> {
  checked.set(sha256, asItIs(seen));
  const path = join(place(), `.${randomUUID()}`);
  await writeFile(path, asItIs(seen), { flag: 'wx', mode: 0o600 })
    .then(() => rename(path, noteOf(sha256)))
    .catch(() => rm(path, { force: true }));
}

/** Parts up to this size are held in memory. */
const MOST_PART_BYTES = 16 << 20;
/** Checks that go on, by SHA-256. */
const checking = new Map<string, Promise<unknown>>();

/** Bytes of a file that lies near, from one offset up to another. Undefined where it does not, or is yet to be checked: that begins then. */
export async function partNear(
  sha256: string,
  from: number,
  to: number,
): Promise<Uint8Array<ArrayBuffer> | undefined> {
  const near = to - from <= MOST_PART_BYTES && (await opened().catch(() => undefined));
  if (!near) return undefined;
  const path = join(near, sha256);
  const file = await open(path, constants.O_RDONLY | constants.O_NOFOLLOW).catch(() => undefined);
  if (!file) return undefined;
  try {
    const seen = await file.stat();
    if (checked.get(sha256) !== asItIs(seen)) {
      if (!checking.has(sha256))
        checking.set(
          sha256,
          isWhatItIsCalled(path, seen, sha256)
            .then((holds) => (holds ? undefined : rm(path, { force: true })))
            .catch(() => undefined)
            .finally(() => checking.delete(sha256)),
        );
      return undefined;
    }
    const bytes = new Uint8Array(to - from);
    for (let at = 0; at < bytes.length;) {
      const { bytesRead } = await file.read(bytes, at, bytes.length - at, from + at);
      if (!bytesRead) return undefined;
      at += bytesRead;
    }
    return bytes;
  } finally {
    await file.close();
  }
}

/** A file that is written near while it arrives, and hashed. Where that fails, it is not there; nothing else fails. */
export class ArrivingNear {
  private readonly hash = createHash('sha256');
  private length = 0;
  private readonly path: Promise<string | undefined>;
  private written: Promise<FileHandle | undefined>;

  /** Until all of it is there it goes by a name that nobody else has: other Folders of this machine write here, too. */
  constructor() {
    this.path = opened().then(
      (near) => near && join(near, `.${randomUUID()}`),
      () => undefined,
    );
    this.written = this.path
      .then((path) => (path ? open(path, 'w', 0o600) : undefined))
      .catch(() => undefined);
  }

  /** Files of so many bytes are written. */
  static takes = (bytes: number): boolean => bytes >= LEAST_BYTES;

  /** Writes bytes at an offset, after those that were to be written before. */
  add(bytes: Uint8Array, at: number): void {
    this.hash.update(bytes);
    this.length += bytes.length;
    this.written = this.written.then(async (file) => {
      try {
        const done = await file?.write(bytes, 0, bytes.length, at);
        if (done && done.bytesWritten < bytes.length) throw new Error('no room for all of it');
        return file;
      } catch {
        await file?.close();
        return undefined;
      }
    });
  }

  /** All of it is there: it goes by its SHA-256 from now on, which is returned. */
  async keep(): Promise<string> {
    const [file, path, sha256] = [await this.written, await this.path, this.hash.digest('hex')];
    if (!path) return sha256;
    try {
      await file?.close();
      if (!file) throw new Error('not written');
      await chmod(path, 0o444);
      const seen = await stat(path);
      if (seen.size !== this.length) throw new Error('not all of it');
      await sayChecked(sha256, seen);
      const [kept, before] = [join(path, '..', sha256), join(path, '..', `.${randomUUID()}`)];
      // What lay there by that name goes in its own time: nobody waits until the disk has given back its room.
      await rename(kept, before).then(
        () => void rm(before, { force: true }).catch(() => undefined),
        () => undefined,
      );
      await rename(path, kept);
      await tidyNear();
    } catch {
      await rm(path, { force: true });
    }
    return sha256;
  }

  /** It does not come to be. */
  async drop(): Promise<void> {
    await (await this.written)?.close();
    const path = await this.path;
    if (path) await rm(path, { force: true });
  }
}

/** Deletes what was not used for long, and what is too much. */
export async function tidyNear(most = MOST_BYTES, keptMs = KEPT_MS): Promise<void> {
  const near = await opened().catch(() => undefined);
  if (!near) return;
  const names = await readdir(near);
  const [notes, others] = [names.filter(isNote), names.filter((name) => !isNote(name))];
  const files = await Promise.all(
    others.map(async (name) => {
      const seen = await stat(join(near, name)).catch(() => undefined);
      return { name, size: seen?.size ?? 0, used: Math.max(seen?.atimeMs ?? 0, seen?.mtimeMs ?? 0) };
    }),
  );
  const kept = new Set<string>();
  let sum = 0;
  for (const { name, size, used } of files.sort((a, b) => b.used - a.used)) {
    sum += size;
    if (sum <= most && Date.now() - used <= keptMs) kept.add(`${name}${CHECKED}`);
    else await rm(join(near, name), { force: true });
  }
  for (const note of notes) if (!kept.has(note)) await rm(join(near, note), { force: true });
}
