import { randomUUID } from 'node:crypto';
import { constants } from 'node:fs';
import { access, lstat, mkdir, readdir, realpath, rename, rm, writeFile } from 'node:fs/promises';
import { basename, join, resolve, sep } from 'node:path';
import type { PoolClient } from 'pg';
import * as z from 'zod';
import { recipeValuesSchema, type RecipeValues } from '../core/docket/recipe';
import { safeName } from '../core/handover/names';
import { spokenNow } from '../words/language';
import { sayTrouble, type Trouble } from '../words/troubles';
import { db, idFrom, transaction } from './db';
import { isEndMark, isPictureName, missingFrom } from '../core/pages/pictureSet';
import { freeIn, Growing, placeOfTry, PLACES, SET_QUIET_MS, WHY } from '../make/dropPlace';
import { filesOfSet } from '../make/pictureSet';
import { Problem } from './problem';
import { findRecipe } from './recipes';
import { tryValues } from './runs';
import { troubleOf } from './trouble';
import type { DropFolderState, WaitingSet } from '../wire/told';
import { firstOf } from '../core/entries';
import { codeOf } from '../core/unknown';

/** The directory under which all drop folders are: the start command says where. */
export const dropRoot = (): string => resolve(process.env.FOLDER_DROPS ?? join('.folder', 'drops'));

interface Row {
  id: string;
  name: string;
  recipe: string;
  vals: RecipeValues;
  paused: boolean;
  trouble: Trouble | null;
  scan_every: number | null;
  sets: WaitingSet[] | null;
  looked_at: Date | null;
}

/** The drop folders that are not paused. */
export const watchedFolders = async (): Promise<Row[]> =>
  (await db().query<Row>('select * from drop_folder where not paused')).rows;

/** All drop folders with how many files of each wait, are done and failed. */
export async function listDropFolders(): Promise<DropFolderState[]> {
  const { rows } = await db().query<Row & { waiting: string; done: string; failed: string }>(
    `select f.*, count(r.id) filter (where r.state in ('waiting', 'working')) as waiting,
       count(r.id) filter (where r.state = 'done') as done, count(r.id) filter (where r.state in ('failed', 'cancelled')) as failed
     from drop_folder f left join run r on r.folder_id = f.id group by f.id order by lower(f.name)`,
  );
  return rows.map((row) => ({
    id: row.id,
    name: row.name,
    path: join(dropRoot(), row.name),
    recipe: row.recipe,
    values: row.vals,
    paused: row.paused,
    waiting: Number(row.waiting),
    done: Number(row.done),
    failed: Number(row.failed),
    ...(row.trouble ? { trouble: row.trouble } : {}),
    ...(row.scan_every ? { scanEvery: row.scan_every } : {}),
    ...(row.sets?.length ? { sets: row.sets } : {}),
  }));
}

const folderSchema = z.object({
  name: z.string().min(1).max(120),
  recipe: z.string().min(1).max(60),
  values: recipeValuesSchema.default({}),
});

/** Makes a drop folder, bound to a recipe. Its name is one plain directory name, so that it lies under the root and nowhere else. Throws Problem. */
export async function addDropFolder(value: unknown): Promise<void> {
  const read = folderSchema.safeParse(value);
  if (!read.success) throw new Problem(400, { code: 'bad-drop-folder' });
  const { name, recipe, values } = read.data;
  if (safeName(name) !== name) throw new Problem(400, { code: 'drop-name', data: { name } });
  tryValues(await findRecipe(recipe), values);
  await openDirectory(name);
  await transaction(async (client) => {
    const { rowCount } = await client.query(
      'insert into drop_folder (name, recipe, vals, language) values ($1, $2, $3, $4) on conflict do nothing',
      [name, recipe, JSON.stringify(values), spokenNow().language],
    );
    if (!rowCount) throw new Problem(409, { code: 'drop-taken', data: { name } });
  });
}

const changeSchema = z.object({
  paused: z.boolean().optional(),
  scanEvery: z.number().int().min(2).max(3600).nullable().optional(),
});

/** Pauses a folder or goes on; sets how often the scanner stand-in delivers. Throws Problem. */
export async function changeDropFolder(id: string, value: unknown): Promise<void> {
  const read = changeSchema.safeParse(value);
  if (!read.success) throw new Problem(400, { code: 'bad-drop-folder' });
  const { paused, scanEvery } = read.data;
  const { rowCount } = await db().query(
    `update drop_folder set paused = coalesce($2, paused), scan_every = case when $3 then $4 else scan_every end, trouble = null
     where id = $1`,
    [idFrom(id), paused ?? null, scanEvery !== undefined, scanEvery ?? null],
  );
  if (!rowCount) throw new Problem(404, { code: 'no-such-drop-folder' });
}

/** Forgets a drop folder; the directory and what is in it stay. Throws Problem while files of it are at work. */
export async function dropDropFolder(id: string): Promise<void> {
  await transaction(async (client) => {
    await client.query('select pg_advisory_xact_lock(hashtextextended($1, 11))', [id]);
    const { rows } = await client.query<{ count: number }>(
      "select count(*)::integer as count from run where folder_id = $1 and state in ('waiting', 'working')",
      [idFrom(id)],
    );
    if (firstOf(rows).count)
      throw new Problem(409, { code: 'drop-busy', data: { count: firstOf(rows).count } });
    await client.query('delete from drop_folder where id = $1', [idFrom(id)]);
  });
}

/** The name of a drop folder. Throws Problem 404. */
export async function nameOfDropFolder(id: string): Promise<string> {
  const { rows } = await db().query<{ name: string }>('select name from drop_folder where id = $1', [
    idFrom(id),
  ]);
  if (!rows[0]) throw new Problem(404, { code: 'no-such-drop-folder' });
  return rows[0].name;
}

/** The directory of a drop folder, made with all its places. Throws Problem if it leads out of the root, cannot be written, or its disk is full. */
export async function openDirectory(name: string): Promise<string> {
  const root = dropRoot();
  const path = join(root, name);
  try {
    await mkdir(root, { recursive: true });
    await mkdir(path, { recursive: true });
    // A symbolic link could lead files out of the root.
    if ((await realpath(path)) !== `${await realpath(root)}${sep}${name}`)
      throw new Problem(400, { code: 'drop-outside', data: { name } });
    for (const place of Object.values(PLACES)) {
      await mkdir(join(path, place), { recursive: true });
      if (!(await lstat(join(path, place))).isDirectory())
        throw new Problem(400, { code: 'drop-outside', data: { name } });
    }
    await access(path, constants.R_OK | constants.W_OK | constants.X_OK);
    return path;
  } catch (error) {
    if (error instanceof Problem) throw error;
    if (troubleOf(error)) throw new Problem(507, { code: 'drop-full', data: { name } });
    const { code: reason = '' } = error as NodeJS.ErrnoException;
    throw new Problem(400, { code: 'drop-unwritable', data: { name, reason } });
  }
}

const growing = new Growing();
/** Most files taken in one transaction, so that work on the first begins while the others are still being looked at. */
const AT_ONCE = 20;

/**
 * Looks into every drop folder: files that have stopped growing become runs. Any number of processes may look; one at a
 * time does so into each folder. A file is moved aside in the same transaction that makes its run, and
 * what a crash left between the two is put back: none is lost, none is taken twice.
 */
export async function lookIntoFolders(folders: readonly Row[]): Promise<void> {
  for (const folder of folders) {
    if (await isAsLeft(folder)) continue;
    try {
      await transaction((client) => lookInto(folder, client));
    } catch (error) {
      const trouble = troubleOf(error);
      if (!trouble) throw error;
      const full = trouble.code === 'disk-full';
      await sayTroubleOf(folder.id, full ? { code: 'drop-full', data: { name: folder.name } } : trouble);
    }
  }
}

/** A folder is looked into so often even if nothing lies in it. */
const LOOK_AT_LEAST_MS = 10_000;

/** Whether nothing lies in a folder, and nothing is told of it that would have to be taken back. */
async function isAsLeft({ name, trouble, sets, looked_at }: Row): Promise<boolean> {
  if (trouble || sets || !looked_at || Date.now() - looked_at.getTime() > LOOK_AT_LEAST_MS) return false;
  const path = join(dropRoot(), name);
  try {
    const entries = await readdir(path);
    const places = Object.values<string>(PLACES).filter((place) => entries.includes(place)).length;
    if (places < Object.keys(PLACES).length || entries.some((entry) => !isPlace(entry))) return false;
    return !(await readdir(join(path, PLACES.working))).length;
  } catch {
    return false;
  }
}

const sayTroubleOf = (id: string, trouble: Trouble | undefined) =>
  db().query('update drop_folder set trouble = $2, looked_at = now() where id = $1', [
    id,
    trouble ? JSON.stringify(trouble) : null,
  ]);

async function lookInto({ id, name, recipe: recipeName, vals }: Row, client: PoolClient): Promise<void> {
  const { rows } = await client.query<{ mine: boolean }>(
    'select pg_try_advisory_xact_lock(hashtextextended($1, 11)) as mine',
    [id],
  );
  if (!firstOf(rows).mine) return;
  const path = await openDirectory(name);
  await putBack(path, client);
  const recipe = await findRecipe(recipeName);
  const here = new Set<string>();
  const sets: WaitingSet[] = [];
  let taken = 0;
  for (const entry of await readdir(path, { withFileTypes: true })) {
    if (entry.name.startsWith('.')) continue;
    const file = join(path, entry.name);
    if (entry.isDirectory()) {
      if (isPlace(entry.name) || !(await isWhole(file, here, sets))) continue;
    } else {
      here.add(file);
      const stat = await lstat(file).catch(() => undefined);
      if (!stat || !growing.isQuiet(file, stat)) continue;
    }
    if (taken === AT_ONCE) continue;
    const run = randomUUID();
    await mkdir(join(path, PLACES.working, run));
    await client.query(
      "insert into run (id, recipe, vals, folder_id, file_name, state) values ($1, $2, $3, $4, $5, 'waiting')",
      [run, JSON.stringify(recipe), JSON.stringify(vals), id, entry.name],
    );
    await rename(file, join(path, PLACES.working, run, entry.name));
    here.delete(file);
    taken++;
  }
  growing.forget((file) => file.startsWith(`${path}${sep}`) && !here.has(file));
  await client.query('update drop_folder set trouble = null, looked_at = now(), sets = $2 where id = $1', [
    id,
    sets.length ? JSON.stringify(sets) : null,
  ]);
}

const isPlace = (name: string): boolean => Object.values<string>(PLACES).includes(name);

/**
 * Whether a directory holds a whole set of pictures: an end mark lies there, or nothing came for a while and nothing is missing
 * between what did. One that waits for more is told in `sets`; `here` learns its files.
 */
async function isWhole(directory: string, here: Set<string>, sets: WaitingSet[]): Promise<boolean> {
  const files = await filesOfSet(directory).catch(() => []);
  const names = files.map(({ name }) => name).filter(isPictureName);
  const ended = (await readdir(directory).catch(() => [])).some(isEndMark);
  let quiet = true;
  for (const { name, stat } of files) {
    const file = join(directory, name);
    here.add(file);
    if (!growing.isQuiet(file, stat, ended ? undefined : setQuiet())) quiet = false;
  }
  if (!names.length || !quiet) return false;
  const missing = ended ? [] : missingFrom(names);
  if (missing.length) sets.push({ name: basename(directory), pictures: names.length, missing });
  return !missing.length;
}

/** How long nothing may have come to a set; tests wait less. */
const setQuiet = (): number => Number(process.env.FOLDER_SET_QUIET_MS ?? SET_QUIET_MS);

/** What a crash left in `working`: a file whose run never came to be goes back; what has ended goes where it belongs. */
async function putBack(path: string, client: PoolClient): Promise<void> {
  const ids = await readdir(join(path, PLACES.working));
  if (!ids.length) return;
  const { rows } = await client.query<{
    id: string;
    state: string;
    file_name: string;
    trouble: Trouble | null;
    token: string | null;
  }>('select id, state, file_name, trouble, token from run where id = any($1)', [ids.map(idFrom)]);
  const known = new Map(rows.map((row) => [row.id, row]));
  for (const id of ids) {
    const run = known.get(id);
    if (run?.state === 'waiting' || run?.state === 'working') continue;
    if (run)
      await settleFile(
        path,
        id,
        run.file_name,
        run.state === 'done'
          ? { token: run.token ?? undefined }
          : { trouble: run.trouble ?? { code: 'unforeseen' } },
      );
    else {
      const aside = join(path, PLACES.working, id);
      for (const name of await readdir(aside))
        await rename(join(aside, name), join(path, await freeIn([path], name)));
      await rm(aside, { recursive: true });
    }
  }
}

/**
 * Moves what was worked out of `working`: to `done`, with what the try with this token made, or with the reason to `failed`.
 * Done twice it does no harm.
 */
export async function settleFile(
  path: string,
  id: string,
  fileName: string,
  { token, trouble }: { token?: string | undefined; trouble?: Trouble | undefined },
): Promise<void> {
  const aside = join(path, PLACES.working, id);
  const to = join(path, trouble ? PLACES.failed : PLACES.done);
  try {
    if (trouble) await writeFile(join(aside, WHY), `${fileName}\n\n${sayTrouble(trouble)}\n`);
    const tries = (await readdir(aside)).filter((name) => name.startsWith('.'));
    for (const name of tries) {
      if (!trouble && token && name === placeOfTry(token))
        for (const made of await readdir(join(aside, name)))
          await rename(join(aside, name, made), join(aside, made));
      await rm(join(aside, name), { recursive: true });
    }
    await rename(aside, join(to, await freeIn([to], safeName(fileName.replace(/\.[^.]+$/, '')))));
  } catch (error) {
    if (codeOf(error) !== 'ENOENT') throw error;
  }
}
