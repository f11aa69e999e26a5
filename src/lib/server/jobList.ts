import { DOCKET_VERSION } from '../core/docket/readDocket';
import { firstOf } from '../core/entries';
import { ALL_JOBS, JOBS_AT_ONCE, type JobOrder, type JobQuery, type JobShow } from '../wire/jobQuery';
import type { JobListing, JobPart, JobSummary } from '../wire/told';
import { db } from './db';

const SHOWS: Record<JobShow, string> = {
  all: 'true',
  stop: 'stops > 0',
  open: 'stops + looks > 0',
  fine: 'pages > 0 and stops + looks = 0',
};
const ORDERS: Record<JobOrder, string> = {
  changed: 'changed_at desc, id',
  title: 'title collate by_number, id',
  pages: 'pages desc, changed_at desc, id',
  open: 'stops desc, looks desc, changed_at desc, id',
};

/** Which jobs a query finds, as SQL with the words to look for as $1: patterns that must all be found. */
const asked = ({ show }: JobQuery): string => `${SHOWS[show]} and found_by like all ($1::text[])`;
const patterns = ({ search }: JobQuery): string[] =>
  search
    .toLowerCase()
    .split(/\s+/)
    .filter(Boolean)
    .map((word) => `%${word.replace(/[\\%_]/g, '\\$&')}%`);

/** The jobs that a query finds, in its order; all of them, or `count` from the one numbered `from`, from 0. */
export async function listJobs(query = ALL_JOBS, from = 0, count?: number): Promise<JobListing[]> {
  const { rows } = await db().query<{
    id: string;
    summary: JobSummary;
    changed_at: Date;
    by: string | null;
    newer: boolean;
    alike: boolean;
  }>(
    `select j.id, j.summary, j.changed_at, s.by, coalesce((s.docket->>'version')::numeric > $2, false) as newer,
       exists (select from job o where o.title = j.title and o.id <> j.id) as alike
     from (select * from job where ${asked(query)} order by ${ORDERS[query.order]} limit $3 offset $4) j
     left join docket_state s on s.job_id = j.id and s.seq = j.at_seq order by ${ORDERS[query.order]}`,
    [patterns(query), DOCKET_VERSION, count ?? null, from],
  );
  return rows.map(({ id, summary, changed_at, by, newer, alike }) => ({
    id,
    summary,
    changedAt: changed_at.toISOString(),
    ...(by ? { by } : {}),
    ...(newer ? { newer } : {}),
    ...(alike ? { alike } : {}),
  }));
}

/** The first of the jobs that a query finds, and how many there are. */
export async function firstJobs(query: JobQuery): Promise<JobPart> {
  const counted = db().query<{ found: number; all: number }>(
    `select count(*) filter (where ${asked(query)})::integer as found, count(*)::integer as all from job`,
    [patterns(query)],
  );
  const [jobs, { rows }] = await Promise.all([listJobs(query, 0, JOBS_AT_ONCE), counted]);
  return { jobs, ...firstOf(rows) };
}
