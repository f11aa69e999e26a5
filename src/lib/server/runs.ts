import type { PoolClient } from 'pg';
import { filledIn, RecipeError, type Recipe, type RecipeValues } from '../core/docket/recipe';
import { isLanguage, spokenNow, type Language } from '../words/language';
import { troubleFrom, type Trouble } from '../words/troubles';
import { actor } from './actor';
import { sealBlob, sweep } from './blobs';
import { claimNext, endClaim, type Claim } from './claims';
import { db, idFrom, transaction } from './db';
import { Problem } from './problem';
import { findRecipe } from './recipes';
import { arrivedOnce, type Coming } from './uploads';
import type { Told, WorkState } from '../wire/told';
import { firstOf } from '../core/entries';

/** A recipe carried out on a file, as it is told. */
export interface RunRecord extends Omit<WorkState, 'of' | 'name' | 'for'> {
  recipe: string;
  version: number;
  fileName: string;
  batch?: string;
}

const FIELDS = `r.id, r.recipe->>'name' as recipe, (r.recipe->>'version')::integer as version, r.file_name, f.name as folder, r.batch, r.state, r.doing,
  r.done, r.total, r.job_id, r.findings, r.trouble, r.by, r.state = 'failed' and r.blob_id is not null as again, r.created_at, r.finished_at from run r left join drop_folder f on f.id = r.folder_id`;

interface Row {
  id: string;
  recipe: string;
  version: number;
  file_name: string;
  folder: string | null;
  batch: string | null;
  state: RunRecord['state'];
  doing: string | null;
  done: number;
  total: number;
  job_id: string | null;
  findings: Told | null;
  trouble: Trouble | null;
  by: string | null;
  again: boolean;
  created_at: Date;
  finished_at: Date | null;
}

const told = (row: Row): RunRecord => ({
  id: row.id,
  recipe: row.recipe,
  version: row.version,
  fileName: row.file_name,
  state: row.state,
  done: row.done,
  total: row.total,
  createdAt: row.created_at.toISOString(),
  ...(row.folder ? { folder: row.folder } : {}),
  ...(row.batch ? { batch: row.batch } : {}),
  ...(row.doing && row.state === 'working' ? { doing: row.doing } : {}),
  ...(row.job_id ? { job: row.job_id } : {}),
  ...(row.findings ? { findings: row.findings } : {}),
  ...(row.trouble && row.finished_at ? { trouble: row.trouble } : {}),
  ...(row.by ? { by: row.by } : {}),
  ...(row.again ? { again: true } : {}),
  ...(row.finished_at ? { finishedAt: row.finished_at.toISOString() } : {}),
});

/** The latest runs, newest first. */
export async function listRuns(): Promise<RunRecord[]> {
  const { rows } = await db().query<Row>(`select ${FIELDS} order by r.created_at desc limit 60`);
  return rows.map(told);
}

/** Makes sure that a recipe can be carried out with the values said. Throws Problem 400. */
export function tryValues(recipe: Recipe, values: RecipeValues): void {
  try {
    filledIn(recipe, values);
  } catch (error) {
    if (error instanceof RecipeError) throw new Problem(400, troubleFrom(error));
    throw error;
  }
}

/** Takes a file of a batch, to be worked by a recipe as it is now; returns the run's id. Throws Problem. */
export async function orderRun(
  name: string,
  values: RecipeValues,
  batch: string,
  fileName: string,
  coming: Coming,
): Promise<string> {
  const recipe = await findRecipe(name);
  tryValues(recipe, values);
  const arrived = await arrivedOnce(coming, async (upload) => {
    const { rowCount } = await db().query('select from run where id = $1', [idFrom(upload)]);
    return rowCount ? upload : undefined;
  });
  if ('taken' in arrived) return arrived.taken;
  return transaction(async (client) => {
    const blob = await sealBlob(client, arrived.file);
    const { rows } = await client.query<{ id: string }>(
      `insert into run (id, recipe, vals, batch, file_name, blob_id, state, by, language)
       values (coalesce($1, gen_random_uuid()), $2, $3, $4, $5, $6, 'waiting', $7, $8)
       on conflict (id) do update set id = excluded.id returning id`,
      [
        coming.upload ?? null,
        JSON.stringify(recipe),
        JSON.stringify(values),
        batch,
        fileName.slice(0, 400),
        blob.id,
        actor(),
        spokenNow().language,
      ],
    );
    return firstOf(rows).id;
  });
}

/** What a worker needs of a run. */
export interface BegunRun {
  recipe: Recipe;
  values: RecipeValues;
  fileName: string;
  folder?: { id: string; name: string };
  blobId?: string;
  jobId?: string;
  by: string | null;
  /** In which it writes what is for people. */
  language: Language;
}

/** Claims the oldest run that waits. Undefined when there is nothing to do any more. */
export const claimRun = (): Promise<Claim | undefined> => claimNext('run');

/** What a claimed run is to do; undefined if it was removed meanwhile. */
export async function orderedRun({ id }: Claim): Promise<BegunRun | undefined> {
  const { rows } = await db().query<{
    recipe: Recipe;
    vals: RecipeValues;
    file_name: string;
    folder_id: string | null;
    folder: string | null;
    blob_id: string | null;
    job_id: string | null;
    by: string | null;
    language: string;
  }>(
    `select r.recipe, r.vals, r.file_name, r.folder_id, f.name as folder, r.blob_id, r.job_id, r.by,
       coalesce(f.language, r.language) as language
     from run r left join drop_folder f on f.id = r.folder_id where r.id = $1`,
    [id],
  );
  const [row] = rows;
  return (
    row && {
      recipe: row.recipe,
      values: row.vals,
      fileName: row.file_name,
      by: row.by,
      language: isLanguage(row.language) ? row.language : 'en',
      ...(row.folder_id ? { folder: { id: row.folder_id, name: row.folder! } } : {}),
      ...(row.blob_id ? { blobId: row.blob_id } : {}),
      ...(row.job_id ? { jobId: row.job_id } : {}),
    }
  );
}

/** Ties the job that was made to a run, in the caller's transaction; false if the claim holds no more. */
export async function tieToRun(
  client: PoolClient,
  { id, token }: Claim,
  job: { id: string; findings: Told },
): Promise<boolean> {
  const { rowCount } = await client.query(
    "update run set job_id = $3, findings = $4 where id = $1 and token = $2 and state = 'working'",
    [id, token, job.id, JSON.stringify(job.findings)],
  );
  return rowCount === 1;
}

/** Ends a run, in the caller's transaction; false if the claim holds no more. Its file goes, unless it is kept for another try. */
export async function finishRun(
  client: PoolClient,
  claim: Claim,
  failure?: { trouble: Trouble; kept: boolean },
): Promise<boolean> {
  if (!(await endClaim(client, claim, failure ? 'failed' : 'done', failure?.trouble))) return false;
  if (!failure?.kept) await client.query('update run set blob_id = null where id = $1', [claim.id]);
  return true;
}

/** Stops a run that waits or is being worked; one that has ended is taken off the list. */
export async function dropRun(id: string): Promise<void> {
  await transaction(async (client) => {
    const { rowCount } = await client.query(
      `update run set state = 'cancelled', trouble = '{"code":"cancelled"}', blob_id = null, finished_at = now()
       where id = $1 and state in ('waiting', 'working')`,
      [idFrom(id)],
    );
    if (!rowCount) await client.query('delete from run where id = $1', [idFrom(id)]);
    await sweep(client);
  });
}

/** The list of work is not a record for ever: runs that ended so many days ago go off it. Their jobs and files stay. */
const KEPT_DAYS = 30;
export async function forgetOldRuns(): Promise<void> {
  // A file that a crash left in a folder's `working` is told by its run: it stays until the folder was looked into after it.
  await db().query(
    `delete from run r where finished_at < now() - make_interval(days => $1)
       and (folder_id is null or exists (
         select from drop_folder f where f.id = r.folder_id and f.trouble is null and f.looked_at > r.finished_at))`,
    [KEPT_DAYS],
  );
}

/** Whether a source came with runs alone while runs still go on: measuring it, which nobody waits for, would only hold them up. */
export async function canWait(sha256: string): Promise<boolean> {
  const { rows } = await db().query<{ later: boolean }>(
    `select exists (select from run where state in ('waiting', 'working'))
       and not exists (select from job_source j where j.sha256 = $1 and not exists (select from run r where r.job_id = j.job_id)) as later`,
    [sha256],
  );
  return firstOf(rows).later;
}
