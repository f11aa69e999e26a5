import * as z from 'zod';
import { titleFrom } from '../core/docket/docket';
import { placeSchema } from '../core/pages/place';
import type { Survey } from '../core/pages/survey';
import type { Trouble } from '../words/errors';
import { storeBlob, sweep } from './blobs';
import { db, transaction } from './db';
import { lockJob, pushState, readJob } from './jobs';
import { Problem } from './problem';
import { addSource } from './sources';
import type { IntakeState } from '../wire/told';

/** A worker that has not been heard of for this long is taken for dead. */
export const SILENT_SECONDS = 8;

/** Where the pages of a file go; `aside` where it becomes none, but is laid on others. */
const intakePlaceSchema = z.union([placeSchema, z.object({ at: z.literal('aside') })]);
type IntakePlace = z.infer<typeof intakePlaceSchema>;

/** Stores a file that arrives for a job, all or nothing; its survey comes after. Throws Problem. */
export async function receive(
  jobId: string,
  name: string,
  place: unknown,
  bytes: AsyncIterable<Uint8Array>,
): Promise<{ id: string; sha256: string }> {
  const where = intakePlaceSchema.safeParse(place);
  if (!where.success) throw new Problem(400, { code: 'bad-place' });
  await readJob(jobId);
  return transaction(async (client) => {
    const blob = await storeBlob(client, bytes);
    const { rows } = await client.query<{ id: string }>(
      "insert into intake (job_id, name, place, state, blob_id) values ($1, $2, $3, 'surveying', $4) returning id",
      [jobId, name.slice(0, 400), JSON.stringify(where.data), blob.id],
    );
    return { id: rows[0]!.id, sha256: blob.sha256 };
  });
}

/** The files of a job that are on their way or could not be taken in. */
export async function openIntakes(jobId: string): Promise<IntakeState[]> {
  const { rows } = await db().query<Omit<IntakeState, 'trouble'> & { trouble: Trouble | null }>(
    "select id, name, state, done, total, trouble from intake where job_id = $1 and state <> 'done' order by arrival",
    [jobId],
  );
  return rows.map(({ trouble, ...intake }) => ({ ...intake, ...(trouble ? { trouble } : {}) }));
}

/** Puts the word about a failed file away. */
export async function dismissIntake(id: string): Promise<void> {
  await db().query("delete from intake where id::text = $1 and state = 'failed'", [id]);
}

/** The file of an intake that still wants its survey. */
export async function intakeToSurvey(
  id: string,
): Promise<{ jobId: string; blobId: string; sha256: string; size: number } | undefined> {
  const { rows } = await db().query<{ job_id: string; blob_id: string; sha256: string; size: string }>(
    "select i.job_id, i.blob_id, b.sha256, b.size from intake i join blob b on b.id = i.blob_id where i.id = $1 and i.state = 'surveying'",
    [id],
  );
  return (
    rows[0] && {
      jobId: rows[0].job_id,
      blobId: rows[0].blob_id,
      sha256: rows[0].sha256,
      size: Number(rows[0].size),
    }
  );
}

/** Says that the file is still being surveyed, and how far. */
export async function tendIntake(id: string, done: number, total: number): Promise<void> {
  await db().query('update intake set done = $2, total = $3, seen_at = now() where id = $1', [
    id,
    done,
    total,
  ]);
}

/** Intakes whose survey nobody is at: their worker went away. */
export async function forsakenIntakes(): Promise<string[]> {
  const { rows } = await db().query<{ id: string }>(
    "select id from intake where state = 'surveying' and seen_at < now() - make_interval(secs => $1)",
    [SILENT_SECONDS],
  );
  return rows.map(({ id }) => id);
}

/** Ends an intake: with a survey its file becomes a source; with a trouble its file is deleted and only the word of it stays. */
export async function settleIntake(
  id: string,
  jobId: string,
  result:
    | { survey: Survey; sha256: string; blobId: string; pdf?: AsyncIterable<Uint8Array> | undefined }
    | { trouble: Trouble },
): Promise<void> {
  await transaction(async (client) => {
    await lockJob(client, jobId);
    if ('survey' in result) {
      const pdf = result.pdf && (await storeBlob(client, result.pdf));
      await addSource(client, result.sha256, result.blobId, result.survey, pdf?.id);
      await client.query('insert into job_source (job_id, sha256) values ($1, $2) on conflict do nothing', [
        jobId,
        result.sha256,
      ]);
      await client.query("update intake set state = 'surveyed' where id = $1", [id]);
    } else {
      await client.query("update intake set state = 'failed', trouble = $2, blob_id = null where id = $1", [
        id,
        JSON.stringify(result.trouble),
      ]);
      await sweep(client);
    }
    // Files of one drop go on the docket in the order they came, however long each survey took.
    const waiting = await client.query<{
      id: string;
      name: string;
      place: IntakePlace;
      state: string;
      sha256: string;
    }>(
      "select i.id, i.name, i.place, i.state, b.sha256 from intake i left join blob b on b.id = i.blob_id where i.job_id = $1 and i.state in ('surveying', 'surveyed') order by i.arrival",
      [jobId],
    );
    for (const intake of waiting.rows) {
      if (intake.state !== 'surveyed') break;
      await client.query("update intake set state = 'done', blob_id = null where id = $1", [intake.id]);
      if (intake.place.at === 'aside') continue;
      const { docket } = await readJob(jobId, client);
      const step = {
        id: `t-${intake.id.slice(0, 8)}`,
        kind: 'take-in' as const,
        source: intake.sha256,
        name: intake.name,
        where: intake.place,
      };
      await pushState(client, jobId, {
        ...docket,
        title: docket.steps.length || docket.title !== 'New job' ? docket.title : titleFrom(intake.name),
        steps: [...docket.steps, step],
      });
    }
  });
}
