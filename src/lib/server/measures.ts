import type { PoolClient } from 'pg';
import { surveySchema, type Survey } from '../core/pages/survey';
import { db, transaction } from './db';
import { SILENT_SECONDS } from './intakes';
import { refreshSummary } from './jobs';

/** Takes the measuring of a source on: at most one worker gets it. Undefined when there is nothing to do. */
export async function beginMeasure(sha256: string): Promise<{ blobId: string; survey: Survey } | undefined> {
  const { rows } = await db().query<{ blob_id: string; survey: unknown }>(
    "update source set measure = 'measuring', measure_seen_at = now() where sha256 = $1 and measure = 'waiting' returning coalesce(pdf_blob_id, blob_id) as blob_id, survey",
    [sha256],
  );
  return rows[0] && { blobId: rows[0].blob_id, survey: surveySchema.parse(rows[0].survey) };
}

/** Says that the source is still being measured. */
export async function tendMeasure(sha256: string): Promise<void> {
  await db().query("update source set measure_seen_at = now() where sha256 = $1 and measure = 'measuring'", [
    sha256,
  ]);
}

/** Puts the measured survey in place and works out anew what the list of jobs shows of its jobs. */
export const finishMeasure = (sha256: string, survey: Survey): Promise<void> =>
  transaction((client) => finishMeasureIn(client, sha256, survey));

/** The same in the caller's transaction. */
export async function finishMeasureIn(client: PoolClient, sha256: string, survey: Survey): Promise<void> {
  await client.query("update source set measure = 'done', survey = $2 where sha256 = $1", [
    sha256,
    JSON.stringify(survey),
  ]);
  const { rows } = await client.query<{ job_id: string }>(
    'select job_id from job_source where sha256 = $1 order by job_id',
    [sha256],
  );
  for (const { job_id } of rows) await refreshSummary(client, job_id);
}

/** Measuring went wrong: the source works as before, only what needs a measure does not. */
export async function failMeasure(sha256: string): Promise<void> {
  await db().query("update source set measure = 'failed' where sha256 = $1", [sha256]);
}

/** Puts back sources whose worker went away (and `mine`), and returns all that wait. */
export async function waitingMeasures(mine: readonly string[] = []): Promise<string[]> {
  await db().query(
    "update source set measure = 'waiting' where measure = 'measuring' and (sha256 = any($1) or measure_seen_at < now() - make_interval(secs => $2))",
    [mine, SILENT_SECONDS],
  );
  const { rows } = await db().query<{ sha256: string }>(
    "select sha256 from source where measure = 'waiting' order by taken_at",
  );
  return rows.map(({ sha256 }) => sha256);
}

/** The sources of a job that are not measured yet, but will be. */
export async function measuringOf(jobId: string): Promise<string[]> {
  const { rows } = await db().query<{ sha256: string }>(
    "select s.sha256 from source s join job_source j using (sha256) where j.job_id = $1 and s.measure in ('waiting', 'measuring')",
    [jobId],
  );
  return rows.map(({ sha256 }) => sha256);
}
