import type { Trouble } from '../words/troubles';
import { db } from './db';
import type { FenceLimits } from './fence';
import { makeOfBlob } from './fencedBlob';
import type { PictureTask } from './fenced/drawPicture';
import { Lanes } from './lanes';
import { Problem } from './problem';
import { blobOfSource, surveysOf } from './sources';

const PIXELS = 320;
/** A page gets this at first; one that needs more waits until all others were drawn, and gets it beside them. */
const QUICK: FenceLimits = { seconds: 5, mb: 768 };
const PATIENT: FenceLimits = { seconds: 30, mb: 2048 };
/** What the limits of a process say about a page, and what the page says about itself: other troubles may not be there the next time. */
const OF_THE_PAGE: ReadonlySet<string> = new Set([
  'too-slow',
  'too-much-memory',
  'damaged',
  'page-unreadable',
]);
/** A page that could not be drawn is tried again after so many hours: a newer renderer may draw it. */
const REMEMBERED_HOURS = 24;

/** Pictures being drawn, so that one asked for twice is drawn once. */
const drawing = new Map<string, Promise<Buffer>>();
const lanes = new Lanes(['quick', 'patient']);

/** A small PNG of a source page (from 0), drawn when first asked for and kept. Throws Problem: 404, or 422 where it cannot be drawn. */
export async function pictureOf(sha256: string, index: number): Promise<Buffer> {
  const { rows } = await db().query<{ png: Buffer | null; trouble: Trouble | null }>(
    `select png, trouble from picture where sha256 = $1 and page = $2
       and (png is not null or tried_at > now() - make_interval(hours => $3))`,
    [sha256, index, REMEMBERED_HOURS],
  );
  const [known] = rows;
  if (known?.png) return known.png;
  if (known?.trouble) throw new Problem(422, known.trouble);
  const key = `${sha256}:${index}`;
  const begun = drawing.get(key) ?? draw(sha256, index).finally(() => drawing.delete(key));
  drawing.set(key, begun);
  return begun;
}

async function draw(sha256: string, index: number): Promise<Buffer> {
  const [blob, survey] = [await blobOfSource(sha256), (await surveysOf([sha256]))[sha256]];
  const page = survey?.pages[index];
  if (!blob || !page) throw new Problem(404, { code: 'no-such-page' });
  const make = (limits: FenceLimits) =>
    makeOfBlob<PictureTask>(blob.id, 'drawPicture', { index, page, pixels: PIXELS }, limits);
  try {
    const png = await lanes
      .run('quick', () => make(QUICK))
      .catch((error) => {
        if (troubleIn(error) === undefined) throw error;
        return lanes.run('patient', () => make(PATIENT));
      });
    await keep(sha256, index, png, null);
    return png;
  } catch (error) {
    const trouble = troubleIn(error);
    if (trouble) await keep(sha256, index, null, trouble);
    throw error;
  }
}

/** What an error says of the page itself. */
function troubleIn(error: unknown): Trouble | undefined {
  return error instanceof Problem && OF_THE_PAGE.has(error.trouble.code) ? error.trouble : undefined;
}

async function keep(
  sha256: string,
  index: number,
  png: Buffer | null,
  trouble: Trouble | null,
): Promise<void> {
  await db().query(
    `insert into picture (sha256, page, png, trouble) select sha256, $2, $3, $4 from source where sha256 = $1
     on conflict (sha256, page) do update set png = $3, trouble = $4, tried_at = now()`,
    [sha256, index, png, trouble && JSON.stringify(trouble)],
  );
}
