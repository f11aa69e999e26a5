import { db } from './db';
import { makeOfBlob } from './fencedBlob';
import type { PictureTask } from './fenced/drawPicture';
import { Problem } from './problem';
import { blobOfSource, surveysOf } from './sources';

const PIXELS = 320;
const LIMITS = { seconds: 30, mb: 2048 };
/** Pictures being drawn, so that one asked for twice is drawn once; and a line in which they wait, one at a time. */
const drawing = new Map<string, Promise<Buffer>>();
let line: Promise<unknown> = Promise.resolve();

/** A small PNG of a source page (from 0), drawn when first asked for and kept. Throws Problem 404. */
export async function pictureOf(sha256: string, index: number): Promise<Buffer> {
  const { rows } = await db().query<{ png: Buffer }>(
    'select png from picture where sha256 = $1 and page = $2',
    [sha256, index],
  );
  if (rows[0]) return rows[0].png;
  const key = `${sha256}:${index}`;
  const begun = drawing.get(key) ?? draw(sha256, index).finally(() => drawing.delete(key));
  drawing.set(key, begun);
  return begun;
}

async function draw(sha256: string, index: number): Promise<Buffer> {
  const [blob, survey] = [await blobOfSource(sha256), (await surveysOf([sha256]))[sha256]];
  const page = survey?.pages[index];
  if (!blob || !page) throw new Problem(404, { code: 'no-such-page' });
  const turn = line.then(async () => {
    const png = await makeOfBlob<PictureTask>(
      blob.id,
      'drawPicture',
      { index, page, pixels: PIXELS },
      LIMITS,
    );
    await db().query('insert into picture (sha256, page, png) values ($1, $2, $3) on conflict do nothing', [
      sha256,
      index,
      png,
    ]);
    return png;
  });
  line = turn.catch(() => undefined);
  return turn;
}
