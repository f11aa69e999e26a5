import * as z from 'zod';
import { pageLength } from '../core/measure/lengthSchema';
import { sizeByName } from '../core/paper/sizes';
import { db } from './db';
import { Problem } from './problem';
import type { OwnSize } from '../wire/told';

const ownSizeSchema = z.object({
  name: z.string().trim().min(1).max(60),
  width: pageLength,
  height: pageLength,
});

/** The sizes that the preparer named, in the order of their names. */
export async function listOwnSizes(): Promise<OwnSize[]> {
  return (await db().query<OwnSize>('select name, width, height from own_size order by lower(name)')).rows;
}

/** Keeps a size under a name; one of that name is changed. Throws Problem if the name is a standard one. */
export async function keepOwnSize(value: unknown): Promise<OwnSize[]> {
  const size = ownSizeSchema.safeParse(value);
  if (!size.success) throw new Problem(400, { code: 'bad-size' });
  const { name, width, height } = size.data;
  if (sizeByName(name)) throw new Problem(400, { code: 'size-name-taken', data: { name } });
  await db().query(
    'insert into own_size (name, width, height) values ($1, $2, $3) on conflict ((lower(name))) do update set name = $1, width = $2, height = $3',
    [name, width, height],
  );
  return listOwnSizes();
}

/** Deletes a named size. Pages of that size stay as they are. */
export async function dropOwnSize(name: string): Promise<OwnSize[]> {
  await db().query('delete from own_size where lower(name) = lower($1)', [name]);
  return listOwnSizes();
}
