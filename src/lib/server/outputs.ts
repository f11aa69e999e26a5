import { createHash } from 'node:crypto';
import type { PoolClient } from 'pg';
import * as z from 'zod';
import type { Docket } from '../core/docket/docket';
import type { Outcome, Proved } from '../core/finish/proof';
import { outputKind, outputSchema, type Output } from '../core/handover/outputs';
import type { Trouble } from '../words/troubles';
import { archiveName, archiveNamed } from '../words/fileName';
import { sweep } from './blobs';
import { actor } from './actor';
import { endClaim, type Claim } from './claims';
import { db, idFrom, transaction } from './db';
import { docketFrom, readJob, revisionOf } from './jobs';
import { Latest } from './latest';
import { judge } from './judge';
import type { MadeFile } from '../make/made';
import { Problem } from './problem';
import type { OutputFile, OutputState } from '../wire/told';
import { amissOf, REPORTED } from '../core/docket/amiss';
import { spokenNow } from '../words/language';
import { firstOf } from '../core/entries';

const orderSchema = z.object({ output: outputSchema, despite: z.string().trim().max(300).optional() });

/** Orders an output of the job as it stands. Throws Problem if it is set up wrongly, or where findings say stop and nothing says why it goes out all the same. */
export async function orderOutput(jobId: string, value: unknown): Promise<string> {
  const order = orderSchema.safeParse(value, REPORTED);
  if (!order.success)
    throw new Problem(400, { code: 'bad-output', data: { reason: amissOf(firstOf(order.error.issues)) } });
  const { output, despite } = order.data;
  const { docket, revision } = await readJob(jobId);
  const { findings } = await judge(docket);
  const stops = findings.filter(({ level }) => level === 'stop').length;
  if (stops && !despite && !outputKind(output.kind).isForReading?.(output))
    throw new Problem(422, { code: 'stop-findings', data: { count: stops } });
  const { rows } = await db().query<{ id: string }>(
    "insert into output (job_id, spec, docket, file_name, state, despite, by, revision, language) values ($1, $2, $3, $4, 'waiting', $5, $6, $7, $8) returning id",
    [
      jobId,
      JSON.stringify(output),
      JSON.stringify(docket),
      archiveName(docket, output),
      despite || null,
      actor(),
      revision,
      spokenNow().language,
    ],
  );
  return firstOf(rows).id;
}

interface Row {
  id: string;
  spec: Output;
  file_name: string;
  state: OutputState['state'];
  doing: OutputState['doing'] | null;
  done: number;
  total: number;
  files: (Omit<OutputFile, 'bytes'> & { bytes: string })[] | null;
  trouble: Trouble | null;
  despite: string | null;
  by: string | null;
  revision: number | null;
  created_at: Date;
  finished_at: Date | null;
}

/** The outputs of a job, newest first. */
export async function listOutputs(jobId: string): Promise<OutputState[]> {
  const now = await worthNow(jobId);
  const { rows } = await db().query<Row>(
    `select o.id, o.spec, o.file_name, o.state, o.doing, o.done, o.total, o.trouble, o.despite, o.by, o.revision, o.created_at, o.finished_at,
       (select json_agg(f.facts::jsonb || jsonb_build_object('name', f.name, 'bytes', b.size) order by f.n)
        from output_file f join blob b on b.id = f.blob_id where f.output_id = o.id) as files
     from output o where o.job_id = $1 order by o.created_at desc limit 50`,
    [jobId],
  );
  const worths = await worthsOf(rows.map(({ id }) => id));
  return rows.map((row) => ({
    id: row.id,
    spec: row.spec,
    fileName:
      row.files?.length === 1
        ? firstOf(row.files).name
        : archiveNamed(row.spec, row.file_name, row.files ?? []),
    state: row.state,
    doing: row.doing ?? 'writing',
    done: row.done,
    total: row.total,
    files: (row.files ?? []).map((file) => ({ ...file, bytes: Number(file.bytes) })),
    ...(row.trouble && row.state === 'failed' ? { trouble: row.trouble } : {}),
    ...(row.by ? { by: row.by } : {}),
    ...(row.revision === null ? {} : { revision: row.revision }),
    ...(row.despite ? { despite: row.despite } : {}),
    createdAt: row.created_at.toISOString(),
    ...(row.finished_at ? { finishedAt: row.finished_at.toISOString() } : {}),
    upToDate: worths.get(row.id) === now,
  }));
}

/** What dockets are worth, by the outputs that were ordered of them, and by the jobs and their revisions: neither ever changes. */
const known = new Latest<{ worth: string | undefined }>(4000);

/** What a job's docket is worth. Throws Problem. */
async function worthNow(jobId: string): Promise<string | undefined> {
  const key = (revision: number) => `${jobId} ${revision}`;
  const found = known.get(key(await revisionOf(jobId)));
  if (found) return found.worth;
  const { docket, revision } = await readJob(jobId);
  const made = { worth: worth(docket) };
  known.set(key(revision), made);
  return made.worth;
}

/** What the dockets of outputs are worth, by the outputs. */
async function worthsOf(ids: readonly string[]): Promise<Map<string, string | undefined>> {
  const missing = ids.filter((id) => !known.get(id));
  if (missing.length) {
    const { rows } = await db().query<{ id: string; docket: Docket }>(
      'select id, docket from output where id = any($1)',
      [missing],
    );
    for (const { id, docket } of rows) known.set(id, { worth: worth(docket) });
  }
  return new Map(ids.map((id) => [id, known.get(id)?.worth]));
}

/** What of a docket decides what its outputs look like, however it was written: by a recipe, or by an older Folder. Undefined if it cannot be read. */
function worth(docket: unknown): string | undefined {
  let read: Docket;
  try {
    read = docketFrom(docket);
  } catch (error) {
    if (error instanceof Problem) return undefined;
    throw error;
  }
  const { title, book, safe, formats, steps, scheme } = read;
  return createHash('sha256')
    .update(JSON.stringify([title, book, safe, formats, steps.filter((step) => !step.off), scheme]))
    .digest('hex');
}

/** Stops an output that is being made or waits; a finished one is deleted. */
export async function dropOutput(id: string): Promise<void> {
  await transaction(async (client) => {
    const { rowCount } = await client.query(
      "update output set state = 'cancelled', finished_at = now() where id = $1 and state in ('waiting', 'working')",
      [idFrom(id)],
    );
    if (!rowCount) await client.query('delete from output where id = $1', [idFrom(id)]);
    await sweep(client);
  });
}

/** The files of a finished output with the name of the archive that holds them all. Throws Problem 404. */
export async function outputFiles(
  id: string,
): Promise<{ archive: string; files: { blobId: string; name: string; size: number; at: Date }[] }> {
  const { rows } = await db().query<{
    archive: string;
    spec: Output;
    blob_id: string;
    name: string;
    size: string;
    at: Date;
  }>(
    `select o.file_name as archive, o.spec, f.blob_id, f.name, b.size, o.finished_at as at
     from output o join output_file f on f.output_id = o.id join blob b on b.id = f.blob_id
     where o.id = $1 and o.state = 'done' order by f.n`,
    [idFrom(id)],
  );
  if (!rows[0]) throw new Problem(404, { code: 'no-such-output' });
  return {
    archive: archiveNamed(rows[0].spec, rows[0].archive, rows),
    files: rows.map(({ blob_id, name, size, at }) => ({ blobId: blob_id, name, size: Number(size), at })),
  };
}

/** What a claimed output is to be, and what proof there is of the job as it stands in it. */
export async function orderedOutput({
  id,
}: Claim): Promise<
  | { docket: Docket; spec: Output; despite: string | null; proved: Proved | undefined; language: string }
  | undefined
> {
  const { rows } = await db().query<{
    docket: unknown;
    spec: Output;
    despite: string | null;
    job_id: string;
    language: string;
  }>('select docket, spec, despite, job_id, language from output where id = $1', [id]);
  const [row] = rows;
  if (!row) return undefined;
  const { docket, spec, despite, job_id, language } = row;
  return { docket: docketFrom(docket), spec, despite, proved: await provedAs(job_id, docket), language };
}

/** The newest proof of a job that was made of it as it stands in a docket. */
async function provedAs(jobId: string, docket: unknown): Promise<Proved | undefined> {
  const { rows } = await db().query<{ docket: unknown; revision: number | null; at: Date; outcome: Outcome }>(
    `select o.docket, o.revision, o.finished_at as at, f.facts -> 'proof' as outcome
     from output o join output_file f on f.output_id = o.id and f.n = 0
     where o.job_id = $1 and o.state = 'done' and f.facts -> 'proof' is not null
     order by o.finished_at desc limit 20`,
    [jobId],
  );
  const asIs = worth(docket);
  const [met] = rows.filter((row) => worth(row.docket) === asIs);
  if (!met) return undefined;
  const { holds, pages, wrong, weak } = met.outcome;
  return {
    outcome: { holds, pages, wrong, weak },
    ...(met.revision === null ? {} : { revision: met.revision }),
    at: met.at.toISOString(),
  };
}

/** Keeps an output that was made without being ordered, in the caller's transaction. */
export async function addFinished(
  client: PoolClient,
  jobId: string,
  docket: Docket,
  output: Output,
  files: readonly { blobId: string; made: MadeFile }[],
): Promise<void> {
  const { rows } = await client.query<{ id: string }>(
    "insert into output (job_id, spec, docket, file_name, state, by, finished_at, language) values ($1, $2, $3, $4, 'done', $5, now(), $6) returning id",
    [
      jobId,
      JSON.stringify(output),
      JSON.stringify(docket),
      archiveName(docket, output),
      actor(),
      spokenNow().language,
    ],
  );
  await addFiles(client, firstOf(rows).id, files);
}

/** Ends an output well, with its files; false if the claim holds no more, and then the transaction is to be rolled back. */
export async function finishOutput(
  client: PoolClient,
  claim: Claim,
  files: readonly { blobId: string; made: MadeFile }[],
): Promise<boolean> {
  if (!(await endClaim(client, claim, 'done'))) return false;
  await addFiles(client, claim.id, files);
  return true;
}

async function addFiles(
  client: PoolClient,
  id: string,
  files: readonly { blobId: string; made: MadeFile }[],
): Promise<void> {
  for (const [n, { blobId, made }] of files.entries()) {
    const { name, file: _, bytes: _b, ...facts } = made;
    await client.query(
      'insert into output_file (output_id, n, name, facts, blob_id) values ($1, $2, $3, $4, $5)',
      [id, n, name, JSON.stringify(facts), blobId],
    );
  }
}
