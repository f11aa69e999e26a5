import type { PoolClient } from 'pg';
import { surveySchema, type Survey } from '../core/model/survey';
import { endClaim, type Claim } from './claims';
import type { MeasureState } from '../wire/told';
import { db, idFrom, transaction } from './db';
import { refreshSummary } from './jobs';
import { Problem } from './problem';
import { holdSource } from './sources';
import type { Trouble } from '../words/troubles';

/** The source that a claimed measure is for; undefined if the source was deleted. */
export async function sourceToMeasure({
  id,
}: Claim): Promise<{ blobId: string; survey: Survey } | undefined> {
  const { rows } = await db().query<{ blob_id: string; survey: unknown }>(
    'select coalesce(pdf_blob_id, blob_id) as blob_id, survey from source where sha256 = $1',
    [id],
  );
  return rows[0] && { blobId: rows[0].blob_id, survey: surveySchema.parse(rows[0].survey) };
}

/** Completes a measure with its survey. Returns false and writes nothing if the claim was lost, or the file deleted. */
export const finishMeasure = (claim: Claim, survey: Survey): Promise<boolean> =>
  transaction(async (client) => {
    // The file before its measure, as deleting a job locks them.
    if (!(await holdSource(client, claim.id)) || !(await endClaim(client, claim, 'done'))) return false;
    await putMeasured(client, claim.id, survey);
    return true;
  });

/** Stores a measured survey that a recipe run produced, in the caller's transaction. */
export async function finishMeasureIn(client: PoolClient, sha256: string, survey: Survey): Promise<void> {
  await client.query(
    "update measure set state = 'done', token = null, trouble = null, finished_at = now() where id = $1",
    [sha256],
  );
  await putMeasured(client, sha256, survey);
}

/** Stores the measured survey and updates the summaries of the jobs that use the source. */
async function putMeasured(client: PoolClient, sha256: string, survey: Survey): Promise<void> {
  await client.query('update source set survey = $2 where sha256 = $1', [sha256, JSON.stringify(survey)]);
  const { rows } = await client.query<{ job_id: string }>(
    'select job_id from job_source where sha256 = $1 order by job_id',
    [sha256],
  );
  for (const { job_id } of rows) await refreshSummary(client, job_id);
}

/** The sources of a job that are not measured yet, but will be, with how far each is. */
export async function measuringOf(jobId: string): Promise<MeasureState[]> {
  const { rows } = await db().query<MeasureState>(
    `select j.sha256 as source, case m.state when 'working' then m.done else 0 end as done, m.total
     from job_source j join measure m on m.id = j.sha256 where j.job_id = $1 and m.state in ('waiting', 'working')`,
    [idFrom(jobId)],
  );
  return rows;
}

/**
 * Cancels the measures of a job that have not ended. They count as failed, so that they can be tried again; whoever works at
 * one loses its claim, and stops. Other jobs of the same files wait for the same measures. Throws Problem 409 if there are none.
 */
export async function stopMeasures(jobId: string): Promise<void> {
  const trouble: Trouble = { code: 'measure-cancelled' };
  const { rowCount } = await db().query(
    `update measure m set state = 'failed', token = null, doing = null, trouble = $2, finished_at = now()
     from job_source j where j.sha256 = m.id and j.job_id = $1 and m.state in ('waiting', 'working')`,
    [idFrom(jobId), JSON.stringify(trouble)],
  );
  if (!rowCount) throw new Problem(409, { code: 'not-measuring' });
}

/** The sources of a job that could not be measured. */
export async function unmeasuredOf(jobId: string): Promise<string[]> {
  const { rows } = await db().query<{ sha256: string }>(
    "select j.sha256 from job_source j join measure m on m.id = j.sha256 where j.job_id = $1 and m.state = 'failed'",
    [jobId],
  );
  return rows.map(({ sha256 }) => sha256);
}
