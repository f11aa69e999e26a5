import type { PoolClient } from 'pg';
import * as z from 'zod';
import { sourcesOf, titleFrom, type Docket } from '../core/docket/docket';
import { asLikely } from '../core/docket/likely';
import { replay } from '../core/docket/replay';
import { sourceSchema } from '../core/docket/steps/takeIn';
import { cleaningSchema, type Cleaning } from '../core/pages/cleaning';
import { placeSchema } from '../core/select/place';
import type { Survey } from '../core/model/survey';
import type { Trouble } from '../words/troubles';
import { actAs, actor } from './actor';
import { sealBlob, storeBlob, sweep } from './blobs';
import { beginAgain, endClaim, type Claim } from './claims';
import { db, idFrom, transaction } from './db';
import { pushState, readJob, seenAnew } from './jobs';
import { Problem } from './problem';
import { addSource, surveysOf } from './sources';
import { arrivedOnce, type Coming } from './uploads';
import type { IntakeState } from '../wire/told';
import { firstOf } from '../core/entries';

/** Where the pages of a file go; `aside` where it becomes none, but is laid on others. */
const arrivalPlaceSchema = z.union([placeSchema, z.object({ at: z.literal('aside') })]);
/** A clean copy of a file goes where that one is. */
interface CopyPlace {
  at: 'instead';
  /** The source whose place it takes, and the file that is cleaned. */
  of: string;
  from: string;
  cleaning: Cleaning;
}
type IntakePlace = z.infer<typeof arrivalPlaceSchema> | CopyPlace;

/**
 * Stores a file that arrives for a job, all or nothing; its survey comes after. An upload that is taken in twice, because the
 * first answer was lost, is one intake. Throws Problem.
 */
export async function receive(
  jobId: string,
  name: string,
  place: unknown,
  coming: Coming,
): Promise<{ id: string; sha256: string }> {
  const where = arrivalPlaceSchema.safeParse(place);
  if (!where.success) throw new Problem(400, { code: 'bad-place' });
  await readJob(jobId);
  const arrived = await arrivedOnce(coming, async (upload) => {
    const { rows } = await db().query<{ id: string; sha256: string }>(
      'select id, sha256 from intake where id = $1',
      [idFrom(upload)],
    );
    return rows[0];
  });
  if ('taken' in arrived) return arrived.taken;
  return transaction(async (client) => {
    const { id: blobId, sha256 } = await sealBlob(client, arrived.file);
    const { rows } = await client.query<{ id: string }>(
      `insert into intake (id, job_id, name, place, state, blob_id, sha256, by)
       values (coalesce($1, gen_random_uuid()), $2, $3, $4, 'waiting', $5, $6, $7)
       on conflict (id) do update set id = excluded.id returning id`,
      [coming.upload ?? null, jobId, name.slice(0, 400), JSON.stringify(where.data), blobId, sha256, actor()],
    );
    return { id: firstOf(rows).id, sha256 };
  });
}

const askedCopySchema = z.object({ source: sourceSchema, cleaning: cleaningSchema });

/** Has a clean copy made of a file of a job; it takes the file's place when it is surveyed. Throws Problem. */
export async function orderCleanCopy(jobId: string, value: unknown): Promise<{ id: string }> {
  const asked = askedCopySchema.safeParse(value);
  if (!asked.success) throw new Problem(400, { code: 'bad-place' });
  const { source, cleaning } = asked.data;
  const { docket } = await readJob(jobId);
  const step = docket.steps.find((each) => each.kind === 'take-in' && each.source === source);
  if (step?.kind !== 'take-in') throw new Problem(404, { code: 'no-such-source' });
  // What is cleaned otherwise than before begins with the file as it came.
  const from = step.cleaned?.from ?? source;
  const place: CopyPlace = { at: 'instead', of: source, from, cleaning };
  const { rows } = await db().query<{ id: string }>(
    `insert into intake (job_id, name, place, state, blob_id, sha256, by)
     select $1, $2, $3, 'waiting', coalesce(pdf_blob_id, blob_id), $4, $5 from source where sha256 = $4 returning id`,
    [jobId, step.name, JSON.stringify(place), from, actor()],
  );
  if (!rows[0]) throw new Problem(404, { code: 'no-such-source' });
  return rows[0];
}

/** The files of a job that are on their way or could not be taken in. */
export async function openIntakes(jobId: string): Promise<IntakeState[]> {
  const { rows } = await db().query<
    Omit<IntakeState, 'trouble'> & { trouble: Trouble | null; again: boolean; copy: boolean }
  >(
    `select id, name, state, done, total, trouble, state = 'failed' and blob_id is not null as again, place->>'at' = 'instead' as copy
     from intake where job_id = $1 and state <> 'done' order by arrival`,
    [idFrom(jobId)],
  );
  return rows.map(({ trouble, again, copy, ...intake }) => ({
    ...intake,
    // The failure of an earlier try is shown only if there is no further try.
    ...(trouble && intake.state === 'failed' ? { trouble } : {}),
    ...(again ? { again } : {}),
    ...(copy ? { copy } : {}),
  }));
}

/** Cancels a file on its way in, or removes the message about one that failed, with the file itself. Whoever works at it loses its claim. */
export async function dismissIntake(id: string): Promise<void> {
  const { rows } = await db().query<{ job_id: string }>('select job_id from intake where id = $1', [
    idFrom(id),
  ]);
  if (!rows[0]) return;
  await ending(rows[0].job_id, async (client) => {
    await client.query("delete from intake where id = $1 and state <> 'done'", [idFrom(id)]);
    await sweep(client);
    return true;
  });
}

/** Queues a failed file for another survey, with the password that opens it where one is given. Returns false if the file is not stored any more. */
export async function tryIntakeAgain(id: string, password?: string): Promise<boolean> {
  if (password !== undefined)
    await db().query("update intake set password = $2 where id = $1 and state = 'failed'", [
      idFrom(id),
      password,
    ]);
  return beginAgain('survey', id, 'blob_id is not null');
}

const openingSchema = z.object({ password: z.string().min(1).max(200) });

/** Has a file that needs a password surveyed with it. Throws Problem. */
export async function openWithPassword(id: string, value: unknown): Promise<void> {
  const asked = openingSchema.safeParse(value);
  if (!asked.success || !(await tryIntakeAgain(id, asked.data.password)))
    throw new Problem(409, { code: 'not-again' });
}

/** The file of a claimed intake; undefined if its job was deleted meanwhile. */
export async function fileOfIntake({ id }: Claim): Promise<FileOfIntake | undefined> {
  const { rows } = await db().query<{
    job_id: string;
    blob_id: string;
    sha256: string;
    size: string;
    place: IntakePlace;
    password: string | null;
  }>(
    'select i.job_id, i.blob_id, i.place, i.password, b.sha256, b.size from intake i join blob b on b.id = i.blob_id where i.id = $1',
    [id],
  );
  return (
    rows[0] && {
      jobId: rows[0].job_id,
      blobId: rows[0].blob_id,
      sha256: rows[0].sha256,
      size: Number(rows[0].size),
      ...(rows[0].place.at === 'instead' ? { clean: rows[0].place } : {}),
      ...(rows[0].password === null ? {} : { password: rows[0].password }),
    }
  );
}

interface FileOfIntake {
  jobId: string;
  blobId: string;
  sha256: string;
  size: number;
  /** What it is opened with. */
  password?: string;
  /** A clean copy is to be made of it. */
  clean?: CopyPlace;
}

/** Completes an intake with its survey: the file, or the `copy` made of it, becomes a source, whose SHA-256 is returned. Returns undefined and writes nothing if the claim was lost. */
export async function settleIntake(
  claim: Claim,
  survey: Survey,
  { pdf, copy }: { pdf?: AsyncIterable<Uint8Array>; copy?: AsyncIterable<Uint8Array> } = {},
): Promise<string | undefined> {
  const file = await fileOfIntake(claim);
  if (!file) return undefined;
  let { sha256, blobId } = file;
  const settled = await ending(file.jobId, async (client) => {
    if (!(await endClaim(client, claim, 'surveyed'))) return false;
    if (copy) {
      ({ sha256, id: blobId } = await storeBlob(client, copy));
      await client.query('update intake set blob_id = $2, sha256 = $3 where id = $1', [
        claim.id,
        blobId,
        sha256,
      ]);
    }
    const pdfBlob = pdf && (await storeBlob(client, pdf));
    await addSource(client, sha256, blobId, survey, pdfBlob?.id);
    await client.query('insert into job_source (job_id, sha256) values ($1, $2) on conflict do nothing', [
      file.jobId,
      sha256,
    ]);
    return true;
  });
  return settled ? sha256 : undefined;
}

/** Marks an intake as failed. The file is deleted unless it is kept for another try. */
export async function failIntake(claim: Claim, trouble: Trouble, kept: boolean): Promise<boolean> {
  const file = await fileOfIntake(claim);
  if (!file) return false;
  return ending(file.jobId, async (client) => {
    if (!(await endClaim(client, claim, 'failed', trouble))) return false;
    if (kept) return true;
    await client.query('update intake set blob_id = null where id = $1', [claim.id]);
    await sweep(client);
    return true;
  });
}

/** Completes an intake in one transaction, then adds to the docket every file whose turn it is. */
const ending = (jobId: string, end: (client: PoolClient) => Promise<boolean>): Promise<boolean> =>
  transaction(async (client) => {
    // The job before the intake, as deleting a job locks them.
    const { rowCount } = await client.query('select from job where id = $1 for update', [jobId]);
    if (!rowCount || !(await end(client))) return false;
    await client.query(
      "update intake set password = null where job_id = $1 and password is not null and state not in ('waiting', 'working')",
      [jobId],
    );
    await putOnDocket(client, jobId);
    return true;
  });

/** Above so many files it is a booklet of scans, or somebody knows what it is. */
const MOST_GUESSED = 40;

/** The docket as what its pages are likely to become, as long as files are only taken in. */
async function likely(client: PoolClient, before: Docket, now: Docket): Promise<Docket> {
  if (now.steps.length > MOST_GUESSED || now.steps.some(({ kind }) => kind !== 'take-in')) return now;
  const surveys = await surveysOf(sourcesOf(now), client);
  return asLikely(now, replay(before, surveys).list, replay(now, surveys).list);
}

/** Files of one drop go on the docket in the order they came, however long each survey took. The caller holds the job's row. */
async function putOnDocket(client: PoolClient, jobId: string): Promise<void> {
  const { rows } = await client.query<{
    id: string;
    name: string;
    place: IntakePlace;
    state: string;
    sha256: string;
    by: string | null;
  }>(
    `select i.id, i.name, i.place, i.state, b.sha256, i.by from intake i join blob b on b.id = i.blob_id
     where i.job_id = $1 and i.state in ('waiting', 'working', 'surveyed') order by i.arrival`,
    [jobId],
  );
  for (const intake of rows) {
    if (intake.state !== 'surveyed') break;
    await client.query("update intake set state = 'done', blob_id = null where id = $1", [intake.id]);
    const { place } = intake;
    if (place.at === 'aside') {
      // A file that steps of the job ask for already, as where it was opened from an archive: the pages are there now.
      if (sourcesOf((await readJob(jobId, client)).docket).includes(intake.sha256))
        await seenAnew(client, jobId);
      continue;
    }
    const { docket } = await readJob(jobId, client);
    if (place.at === 'instead') {
      const { of, from, cleaning } = place;
      const steps = docket.steps.map((step) =>
        step.kind === 'take-in' && step.source === of
          ? { ...step, source: intake.sha256, cleaned: { ...cleaning, from } }
          : step,
      );
      await actAs(intake.by, () => pushState(client, jobId, { ...docket, steps }));
      continue;
    }
    const step = {
      id: `t-${intake.id.slice(0, 8)}`,
      kind: 'take-in' as const,
      source: intake.sha256,
      name: intake.name,
      where: place,
    };
    await actAs(intake.by, () =>
      likely(client, docket, {
        ...docket,
        title: docket.steps.length || docket.title !== 'New job' ? docket.title : titleFrom(intake.name),
        steps: [...docket.steps, step],
      }).then((next) => pushState(client, jobId, next)),
    );
  }
}
