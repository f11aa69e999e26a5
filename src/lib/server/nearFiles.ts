import { chmod, link, lstat, mkdir, readdir, rm, stat, utimes } from 'node:fs/promises';
import { hostname, tmpdir } from 'node:os';
import { join } from 'node:path';
import { codeOf } from '../core/unknown';
import { blobToFile, fileBytes, hashOf } from './blobs';
import { db } from './db';

/*
 * Large files that were read lately lie in a directory of this machine too, by their SHA-256: whoever needs one again does not
 * fetch it anew. It may be deleted at any time; what lies there is checked before it is used.
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
  if ((await hashOf(fileBytes(path))).sha256 === sha256) {
    await utimes(kept, new Date(), new Date()).catch(() => undefined);
    return true;
  }
  await Promise.all([rm(path, { force: true }), rm(kept, { force: true })]);
  return false;
}

/** Deletes what was not used for long, and what is too much. */
export async function tidyNear(most = MOST_BYTES, keptMs = KEPT_MS): Promise<void> {
  const near = await opened().catch(() => undefined);
  if (!near) return;
  const files = await Promise.all(
    (await readdir(near)).map(async (name) => {
      const path = join(near, name);
      const seen = await stat(path).catch(() => undefined);
      return { path, size: seen?.size ?? 0, used: seen?.mtimeMs ?? 0 };
    }),
  );
  let sum = 0;
  for (const { path, size, used } of files.sort((a, b) => b.used - a.used)) {
    sum += size;
    if (sum > most || Date.now() - used > keptMs) await rm(path, { force: true });
  }
}
