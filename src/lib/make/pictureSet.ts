import type { Stats } from 'node:fs';
import { lstat, readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { promisify } from 'node:util';
import yauzl from 'yauzl';
import { MOST_FILE_MB } from '../core/docket/limits';
import { inScanOrder, isEndMark, isPictureName } from '../core/pages/pictureSet';
import { PictureError, pictureKind } from '../raster/picture';

/** Pictures that may be in one set. */
const MOST_PICTURES = 2000;
/** What programs put into archives of their own accord. */
const ASIDE = /(?:^|\/)(?:\.|__MACOSX\/|thumbs\.db$|desktop\.ini$)/i;

/** Whether bytes begin as a ZIP. */
export const isZip = (bytes: Uint8Array): boolean =>
  bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 3 && bytes[3] === 4;

/** The pictures in a ZIP, in the order in which they were scanned. Throws PictureError if there is anything else in it, or too much. */
export async function picturesIn(zip: Buffer): Promise<Buffer[]> {
  const found: { name: string; bytes: Buffer }[] = [];
  let left = MOST_FILE_MB * 1024 * 1024;
  try {
    const file = await promisify<Buffer, yauzl.Options, yauzl.ZipFile>(yauzl.fromBuffer)(zip, {
      lazyEntries: true,
      validateEntrySizes: true,
    });
    const openStream = promisify(file.openReadStream.bind(file)) as (
      entry: yauzl.Entry,
    ) => Promise<AsyncIterable<Buffer>>;
    for await (const entry of entriesOf(file)) {
      if (entry.fileName.endsWith('/') || ASIDE.test(entry.fileName)) continue;
      const name = entry.fileName.replace(/^.*\//, '');
      left -= entry.uncompressedSize;
      if (left < 0) throw new PictureError('set-too-large', { most: MOST_FILE_MB });
      if (found.length === MOST_PICTURES) throw new PictureError('too-many-pages', { most: MOST_PICTURES });
      if (!isPictureName(name)) throw new PictureError('set-of-others', { name: name.slice(0, 80) });
      const parts: Buffer[] = [];
      for await (const part of await openStream(entry)) parts.push(part);
      const bytes = Buffer.concat(parts);
      if (!pictureKind(bytes)) throw new PictureError('set-of-others', { name: name.slice(0, 80) });
      found.push({ name, bytes });
    }
  } catch (error) {
    if (error instanceof PictureError) throw error;
    throw new PictureError('set-damaged');
  }
  if (!found.length) throw new PictureError('set-empty');
  return inScanOrder(found, ({ name }) => name).map(({ bytes }) => bytes);
}

/** The entries of a ZIP, one after another. */
async function* entriesOf(file: yauzl.ZipFile): AsyncGenerator<yauzl.Entry> {
  for (;;) {
    const next = await new Promise<yauzl.Entry | undefined>((done, fail) => {
      const over = () => {
        file.removeAllListeners();
      };
      file.once('entry', (entry: yauzl.Entry) => (over(), done(entry)));
      file.once('end', () => (over(), done(undefined)));
      file.once('error', (error) => (over(), fail(error)));
      file.readEntry();
    });
    if (!next) return;
    yield next;
  }
}

/**
 * The plain files of a set in a directory, in the order in which they were scanned, with what is known of each; hidden ones, end
 * marks and links are left out. What is no picture stays among them, so that the set is refused and says why.
 */
export async function filesOfSet(directory: string): Promise<{ name: string; stat: Stats }[]> {
  const found: { name: string; stat: Stats }[] = [];
  for (const name of await readdir(directory)) {
    if (ASIDE.test(name) || isEndMark(name)) continue;
    const stat = await lstat(join(directory, name)).catch(() => undefined);
    if (stat?.isFile()) found.push({ name, stat });
  }
  return inScanOrder(found, ({ name }) => name);
}

/** The pictures in a directory as a ZIP, the same bytes whenever it is packed; `bytesOf` reads a file. */
export async function* packedSet(
  directory: string,
  bytesOf: (path: string) => AsyncIterable<Uint8Array>,
): AsyncGenerator<Uint8Array> {
  const { downloadZip } = await import('client-zip');
  const pictures = await filesOfSet(directory);
  const zip = downloadZip(
    pictures.map(({ name, stat: { size } }) => ({
      name,
      size,
      lastModified: new Date(1980, 0, 1),
      input: bytesOf(join(directory, name)),
    })),
  );
  for await (const part of zip.body as unknown as AsyncIterable<Uint8Array>) yield part;
}
