import * as z from 'zod';
import { keptStampSchema } from '../core/docket/steps/stamp';
import { sweep } from './blobs';
import { db, transaction } from './db';
import { Problem } from './problem';
import type { OwnStamp } from '../wire/told';

const ownStampSchema = z.object({ name: z.string().trim().min(1).max(60), stamp: keptStampSchema });
/** The stamps that the preparer kept, in the order of their names. */
export async function listOwnStamps(): Promise<OwnStamp[]> {
  const { rows } = await db().query<{ name: string; settings: unknown }>(
    'select name, settings from own_stamp order by lower(name)',
  );
  return rows.map(({ name, settings }) => ({ name, stamp: keptStampSchema.parse(settings) }));
}

/** Keeps a stamp under a name; one of that name is changed. Its file stays as long as it is kept. Throws Problem. */
export async function keepOwnStamp(value: unknown): Promise<OwnStamp[]> {
  const kept = ownStampSchema.safeParse(value);
  if (!kept.success) throw new Problem(400, { code: 'bad-stamp' });
  const { name, stamp } = kept.data;
  const { rowCount } = await db().query(
    `insert into own_stamp (name, settings, sha256) select $1, $2, sha256 from source where sha256 = $3
       on conflict ((lower(name))) do update set name = $1, settings = $2, sha256 = $3`,
    [name, JSON.stringify(stamp), stamp.graphic.source],
  );
  if (!rowCount) throw new Problem(400, { code: 'bad-stamp' });
  return listOwnStamps();
}

/** Forgets a stamp. Pages that have it keep it. */
export async function dropOwnStamp(name: string): Promise<OwnStamp[]> {
  await transaction(async (client) => {
    await client.query('delete from own_stamp where lower(name) = lower($1)', [name]);
    await sweep(client);
  });
  return listOwnStamps();
}
