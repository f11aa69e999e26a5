import { readJson } from './body';
import { makeOfBlob } from './fencedBlob';
import type { HideInksTask } from './fenced/hideInksFile';
import { Lanes } from './lanes';
import { Problem } from './problem';
import { blobOfSource } from './sources';

const LIMITS = { seconds: 60, mb: 3072 };
const MOST_INKS = 200;
/** One view is made at a time, because each may hold a whole file in memory. */
const lanes = new Lanes(['view']);

const isNames = (value: unknown): value is string[] =>
  Array.isArray(value) && value.every((name) => typeof name === 'string');

/** A copy of a source, for viewing, in which some inks print nothing; `hidden` are their names as JSON. Throws Problem. */
export async function inkView(sha256: string, hidden: string): Promise<Buffer> {
  const names: unknown = readJson(Buffer.from(hidden));
  if (!isNames(names) || names.length > MOST_INKS) throw new Problem(400, { code: 'not-json' });
  const blob = await blobOfSource(sha256);
  if (!blob) throw new Problem(404, { code: 'no-such-source' });
  return lanes.run('view', () =>
    makeOfBlob<HideInksTask>(blob.id, 'hideInksFile', { hidden: names }, LIMITS),
  );
}
