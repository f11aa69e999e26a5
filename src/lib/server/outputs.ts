import { createHash } from 'node:crypto';
import type { PoolClient } from 'pg';
import { outputSchema, type Docket, type Output } from '../core/docket/docket';
import type { Trouble } from '../words/errors';
import { outputFileName } from '../words/fileName';
import { sweep } from './blobs';
import { db, transaction } from './db';
import { SILENT_SECONDS } from './intakes';
import { readJob } from './jobs';
import { Problem } from './problem';

export interface OutputRecord {
  id: string;
  spec: Output;
  fileName: string;
  state: 'waiting' | 'making' | 'done' | 'failed' | 'cancelled';
  done: number;
  total: number;
  size?: number;
  trouble?: Trouble;
  createdAt: string;
  finishedAt?: string;
  /** Whether the job is still as it was when this was made. */
  fresh: boolean;
}

/** Orders an output of the job as it stands. */
export async function orderOutput(jobId: string, value: unknown): Promise<string> {
  const spec = outputSchema.safeParse(value);
  if (!spec.success) throw new Problem(400, { code: 'bad-output' });
  const { docket } = await readJob(jobId);
  const { rows } = await db().query<{ id: string }>(
    "insert into output (job_id, spec, docket, file_name, state) values ($1, $2, $3, $4, 'waiting') returning id",
    [jobId, JSON.stringify(spec.data), JSON.stringify(docket), outputFileName(docket, spec.data)],
  );
  return rows[0]!.id;
}

interface Row {
  id: string;
  spec: Output;
  docket: Docket;
  file_name: string;
  state: OutputRecord['state'];
  done: number;
  total: number;
  size: string | null;
  trouble: Trouble | null;
  created_at: Date;
  finished_at: Date | null;
}

/** The outputs of a job, newest first. */
export async function listOutputs(jobId: string): Promise<OutputRecord[]> {
  const { docket } = await readJob(jobId);
  const { rows } = await db().query<Row>(
    `select o.id, o.spec, o.docket, o.file_name, o.state, o.done, o.total, b.size, o.trouble, o.created_at, o.finished_at
     from output o left join blob b on b.id = o.blob_id where o.job_id = $1 order by o.created_at desc limit 50`,
    [jobId],
  );
  const now = worth(docket);
  return rows.map((row) => ({
    id: row.id,
    spec: row.spec,
    fileName: row.file_name,
    state: row.state,
    done: row.done,
    total: row.total,
    ...(row.size ? { size: Number(row.size) } : {}),
    ...(row.trouble ? { trouble: row.trouble } : {}),
    createdAt: row.created_at.toISOString(),
    ...(row.finished_at ? { finishedAt: row.finished_at.toISOString() } : {}),
    fresh: worth(row.docket) === now,
  }));
}

/** What of a docket decides what its outputs look like. */
const worth = ({ title, book, formats, steps, scheme }: Docket): string =>
  createHash('sha256')
    .update(JSON.stringify([title, book, formats, steps.filter((step) => !step.off), scheme]))
    .digest('hex');

/** Stops an output that is being made or waits; a finished one is deleted. */
export async function dropOutput(id: string): Promise<void> {
  await transaction(async (client) => {
    const { rowCount } = await client.query(
      "update output set state = 'cancelled', finished_at = now() where id::text = $1 and state in ('waiting', 'making')",
      [id],
    );
    if (!rowCount) await client.query('delete from output where id::text = $1', [id]);
    await sweep(client);
  });
}

/** The file of a finished output. Throws Problem 404. */
export async function outputFile(id: string): Promise<{ blobId: string; fileName: string; size: number }> {
  const { rows } = await db().query<{ blob_id: string; file_name: string; size: string }>(
    "select o.blob_id, o.file_name, b.size from output o join blob b on b.id = o.blob_id where o.id::text = $1 and o.state = 'done'",
    [id],
  );
  if (!rows[0]) throw new Problem(404, { code: 'no-such-output' });
  return { blobId: rows[0].blob_id, fileName: rows[0].file_name, size: Number(rows[0].size) };
}

/** Takes an output on: at most one worker gets it. Undefined when there is nothing to do any more. */
export async function beginOutput(id: string): Promise<{ docket: Docket; spec: Output } | undefined> {
  const { rows } = await db().query<{ docket: Docket; spec: Output }>(
    "update output set state = 'making', done = 0, total = 0, seen_at = now() where id = $1 and state = 'waiting' returning docket, spec",
    [id],
  );
  return rows[0];
}

/** Says that the output is still being made; false when it was cancelled meanwhile. */
export async function tendOutput(id: string, done: number, total: number): Promise<boolean> {
  const { rowCount } = await db().query(
    "update output set done = $2, total = $3, seen_at = now() where id = $1 and state = 'making'",
    [id, done, total],
  );
  return rowCount === 1;
}

/** Ends an output well; false, with nothing kept, when it was cancelled meanwhile. */
export async function finishOutput(client: PoolClient, id: string, blobId: string): Promise<boolean> {
  const { rowCount } = await client.query(
    "update output set state = 'done', blob_id = $2, finished_at = now() where id = $1 and state = 'making'",
    [id, blobId],
  );
  return rowCount === 1;
}

export async function failOutput(id: string, trouble: Trouble): Promise<void> {
  await db().query(
    "update output set state = 'failed', trouble = $2, finished_at = now() where id = $1 and state = 'making'",
    [id, JSON.stringify(trouble)],
  );
}

/** Puts back outputs whose worker went away, and returns all that wait. */
export async function waitingOutputs(mine: readonly string[] = []): Promise<string[]> {
  await db().query(
    `update output set state = 'waiting' where state = 'making' and (id = any($1::uuid[]) or seen_at < now() - make_interval(secs => $2))`,
    [mine, SILENT_SECONDS],
  );
  const { rows } = await db().query<{ id: string }>(
    "select id from output where state = 'waiting' order by created_at",
  );
  return rows.map(({ id }) => id);
}
