import * as z from 'zod';
import type { JobPulse, JobStatus } from '../wire/told';
import { actor } from './actor';
import { nextChange } from './changes';
import { db, idFrom } from './db';
import { openIntakes } from './intakes';
import { readJob, revisionOf } from './jobs';
import { judgeAhead } from './judge';
import { measuringOf } from './measures';
import { listOutputs } from './outputs';
import { presentIn } from './presence';
import { Problem } from './problem';

/**
 * What moves while somebody looks on. The revision is read last, so that it has whatever ended before, and what goes on still
 * is told as such: read first, a file that comes in just then would be told by neither, and nobody would ask again. Throws
 * Problem 404.
 */
export async function statusOf(jobId: string): Promise<JobStatus> {
  const [outputs, intakes, measuring] = await Promise.all([
    listOutputs(jobId),
    openIntakes(jobId),
    measuringOf(jobId),
  ]);
  return { revision: await revisionOf(jobId), intakes, measuring, outputs };
}

const askedSchema = z.object({
  /** The window that asks. */
  window: z.guid().optional(),
  /** What is being done there, in a word or two. */
  doing: z.string().max(60).optional(),
  /** The tag of the status that it knows. */
  tag: z.string().max(64).optional(),
  /** It waits for something: the answer comes as soon as there is something new, or after a while. */
  hold: z.literal('1').optional(),
});
/** So long an answer is held back at most. */
const HOLD_MS = 700;

/**
 * The same for a window that asks every second: who else has the job open, and the status only where it is another than the
 * one that is known. Throws Problem.
 */
export async function pulseOf(jobId: string, query: Record<string, string>): Promise<JobPulse> {
  const asked = askedSchema.safeParse(query);
  if (!asked.success) throw new Problem(400, { code: 'not-json' });
  const { window, doing, tag: known, hold } = asked.data;
  // Before the status is read: what changes meanwhile gives another tag the next time.
  const tag = hold && known ? await tagAfter(jobId, known) : await tagOf(jobId);
  const others = window ? await presentIn(jobId, { window, person: actor(), doing: doing ?? null }) : [];
  if (tag === known) return { tag, others };
  const status = await statusOf(jobId);
  if (window) void thinkAhead(jobId, status, !known);
  return { tag, others, status };
}

/** Jobs that had pages to measure when they were last looked at. */
const unmeasured = new Set<string>();
/** Works a job out when it is opened, and when all of its pages are measured: whoever orders an output finds that done. */
async function thinkAhead(jobId: string, { measuring }: JobStatus, isOpened: boolean): Promise<void> {
  if (measuring.length) {
    unmeasured.add(jobId);
    return;
  }
  if (!unmeasured.delete(jobId) && !isOpened) return;
  // Where it cannot be, whoever orders is told why.
  await readJob(jobId)
    .then(({ docket }) => judgeAhead(docket))
    .catch(() => undefined);
}

/** The tag as soon as it is another than the one known, or as it is after a while. */
async function tagAfter(jobId: string, known: string): Promise<string> {
  const until = performance.now() + HOLD_MS;
  for (;;) {
    const left = until - performance.now();
    const { change, drop } = nextChange(jobId, Math.max(0, left));
    try {
      const tag = await tagOf(jobId);
      if (tag !== known || left <= 0) return tag;
      await change;
    } finally {
      drop();
    }
  }
}

/** A text that is another one whenever the status of a job is. Throws Problem 404. */
async function tagOf(jobId: string): Promise<string> {
  const { rows } = await db().query<{ tag: string | null }>(
    `select md5(concat_ws(',', j.revision,
       (select string_agg(concat(i.id, i.state, i.done, i.total), ',' order by i.arrival) from intake i where i.job_id = j.id and i.state <> 'done'),
       (select string_agg(concat(o.id, o.state, o.doing, o.done, o.total), ',' order by o.created_at, o.id) from output o where o.job_id = j.id),
       (select string_agg(concat(m.id, m.state, m.done, m.total), ',' order by m.id) from measure m join job_source s on s.sha256 = m.id where s.job_id = j.id)
     )) as tag from job j where j.id = $1`,
    [idFrom(jobId)],
  );
  if (!rows[0]?.tag) throw new Problem(404, { code: 'no-such-job' });
  return rows[0].tag;
}
