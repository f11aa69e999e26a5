import { KEPT, keptNameSchema, readKept, storedKept, type Kept, type KeptKind } from '../core/docket/kept';
import { db } from './db';
import { Problem } from './problem';
import { keysOf } from '../core/entries';
import { isRecord } from '../core/unknown';

/** The kind that a request names. Throws Problem. */
function kindOf(kind: string): KeptKind {
  const known = keysOf(KEPT).find((each) => each === kind);
  if (known) return known;
  throw new Problem(404, { code: 'unforeseen', data: { reason: 'no such kind' } });
}

/** What the preparer keeps of a kind, in the order of the names. What a newer Folder kept stays as it is, and is left out. Throws Problem. */
export async function listKept(given: string): Promise<Kept<KeptKind>[]> {
  const kind = kindOf(given);
  const { rows } = await db().query<{ name: string; settings: unknown }>(
    'select name, settings from kept where kind = $1 order by lower(name)',
    [kind],
  );
  return rows.flatMap(({ name, settings }) => {
    const read = readKept(kind, settings);
    return read ? [{ name, settings: read }] : [];
  });
}

/** Keeps something under a name; what had that name is changed. Throws Problem. */
export async function keep(given: string, value: unknown): Promise<Kept<KeptKind>[]> {
  const kind = kindOf(given);
  const { name, settings } = isRecord(value) ? value : {};
  const [named, kept] = [keptNameSchema.safeParse(name), KEPT[kind].safeParse(settings)];
  if (!named.success || !kept.success) throw new Problem(400, { code: 'bad-kept' });
  await db().query(
    'insert into kept (kind, name, settings) values ($1, $2, $3) on conflict (kind, (lower(name))) do update set name = $2, settings = $3',
    [kind, named.data, JSON.stringify(storedKept(kept.data))],
  );
  return listKept(kind);
}

/** Forgets what has a name. Jobs that use it keep it. Throws Problem. */
export async function forget(given: string, name: string): Promise<Kept<KeptKind>[]> {
  const kind = kindOf(given);
  await db().query('delete from kept where kind = $1 and lower(name) = lower($2)', [kind, name]);
  return listKept(kind);
}
