import type { PoolClient } from 'pg';
import { surveySchema, type Survey } from '../core/model/survey';
import { endClaim, type Claim } from './claims';
import { db, transaction } from './db';
import { refreshSummary } from './jobs';

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

/** Completes a measure with its survey. Returns false and writes nothing if the claim was lost. */
export const finishMeasure = (claim: Claim, survey: Survey): Promise<boolean> =>
  transaction(async (client) => {
    if (!(await endClaim(client, claim, 'done'))) return false;
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

/** The sources of a job that are not measured yet, but will be. */
export const measuringOf = (jobId: string): Promise<string[]> => sourcesIn(jobId, ['waiting', 'working']);

/** The sources of a job that could not be measured. */
export const unmeasuredOf = (jobId: string): Promise<string[]> => sourcesIn(jobId, ['failed']);

async function sourcesIn(jobId: string, states: readonly string[]): Promise<string[]> {
  const { rows } = await db().query<{ sha256: string }>(
    'select j.sha256 from job_source j join measure m on m.id = j.sha256 where j.job_id = $1 and m.state = any($2)',
    [jobId, states],
  );
  return rows.map(({ sha256 }) => sha256);
}
