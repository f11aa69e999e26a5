import { setImmediate } from 'node:timers/promises';
import type { PoolClient } from 'pg';
import { surveySchema, type Survey } from '../core/model/survey';
import type { Surveys } from '../core/model/survey';
import { db, type Db } from './db';

/** The surveys of the given sources, those that are here. */
export async function surveysOf(hashes: readonly string[], client: Db = db()): Promise<Surveys> {
  const { rows } = await client.query<{ sha256: string; survey: unknown }>(
    'select sha256, survey from source where sha256 = any($1)',
    [hashes],
  );
  return Object.fromEntries(rows.map(({ sha256, survey }) => [sha256, surveySchema.parse(survey)]));
}

/** After so many pages, or ms, the engine has compiled how surveys are read; and as many pages at a time as nobody waits for. */
const [WARM_PAGES, WARM_MS, WARM_AT_ONCE] = [20_000, 1500, 100];

/**
 * Reads a measured survey that is here again and again and throws it away: of what somebody hands over, a long job takes a tenth
 * of a second less. False where there is none yet.
 */
export async function warmUpSurveys(): Promise<boolean> {
  const { rows } = await db().query<{ survey: Survey }>(
    "select survey from source where sha256 = (select id from measure where state = 'done' limit 1)",
  );
  for (const { survey } of rows) {
    const some = { ...survey, pages: survey.pages.slice(0, WARM_AT_ONCE) };
    const until = performance.now() + WARM_MS;
    for (let read = 0; read < WARM_PAGES && performance.now() < until; read += some.pages.length) {
      surveySchema.parse(some);
      await setImmediate();
    }
  }
  return rows.length > 0;
}

/** The same as JSON, unread. */
export async function surveyTexts(
  hashes: readonly string[],
  client: Db = db(),
): Promise<Record<string, string>> {
  const { rows } = await client.query<{ sha256: string; survey: string }>(
    'select sha256, survey::text as survey from source where sha256 = any($1)',
    [hashes],
  );
  return Object.fromEntries(rows.map(({ sha256, survey }) => [sha256, survey]));
}

/** The surveys of all sources that a job ever took in. */
export async function surveysOfJob(jobId: string): Promise<Surveys> {
  const { rows } = await db().query<{ sha256: string }>('select sha256 from job_source where job_id = $1', [
    jobId,
  ]);
  return surveysOf(rows.map(({ sha256 }) => sha256));
}

/** Makes a blob a source, of a picture with the PDF made of it, to be measured later unless its survey is measured already. A source that is there stays as it is. */
export async function addSource(
  client: Db,
  sha256: string,
  blobId: string,
  survey: Survey,
  pdfBlobId?: string,
): Promise<void> {
  const { rowCount } = await client.query(
    'insert into source (sha256, blob_id, survey, pdf_blob_id) values ($1, $2, $3, $4) on conflict (sha256) do nothing',
    [sha256, blobId, JSON.stringify(survey), pdfBlobId ?? null],
  );
  if (rowCount)
    await client.query('insert into measure (id, state) values ($1, $2)', [
      sha256,
      survey.pages.every(({ drawn }) => drawn) ? 'done' : 'waiting',
    ]);
}

/** Holds a source until the caller's transaction ends, so that it is not swept away; false when it is here no more. */
export async function holdSource(client: PoolClient, sha256: string): Promise<boolean> {
  const { rowCount } = await client.query('select from source where sha256 = $1 for key share', [sha256]);
  return rowCount === 1;
}

/** The blob of a source as PDF, or as it was supplied; undefined when it is not here. */
export async function blobOfSource(
  sha256: string,
  as: 'pdf' | 'supplied' = 'pdf',
): Promise<{ id: string; size: number; sha256: string } | undefined> {
  const { rows } = await db().query<{ id: string; size: string; sha256: string }>(
    `select b.id, b.size, b.sha256 from source s join blob b on b.id = ${as === 'pdf' ? 'coalesce(s.pdf_blob_id, s.blob_id)' : 's.blob_id'} where s.sha256 = $1`,
    [sha256],
  );
  return rows[0] && { ...rows[0], size: Number(rows[0].size) };
}
