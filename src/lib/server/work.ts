import * as z from 'zod';
import type { Trouble } from '../words/troubles';
import { beginAgain } from './claims';
import { db } from './db';
import { tryIntakeAgain } from './intakes';
import { unmeasuredOf } from './measures';
import { Problem } from './problem';
import { enqueue } from './queue';
import { listRuns } from './runs';
import type { WorkState } from '../wire/told';

interface Row {
  of: WorkState['of'];
  id: string;
  name: string;
  title: string;
  job_id: string;
  state: WorkState['state'];
  doing: string | null;
  done: number;
  total: number;
  trouble: Trouble | null;
  again: boolean | null;
  by: string | null;
  created_at: Date;
  finished_at: Date | null;
}

const MOST = 60;

/** Recipes on files, outputs, files on their way in and pages being measured: what goes on first, then the newest. */
export async function listWork(): Promise<WorkState[]> {
  const [runs, { rows }] = await Promise.all([
    listRuns(),
    db().query<Row>(
      `select * from (
         (select 'output' as of, o.id::text,
            coalesce((select min(f.name) from output_file f where f.output_id = o.id having count(*) = 1), o.file_name) as name, o.job_id,
            o.state, o.doing, o.done, o.total, case o.state when 'failed' then o.trouble end as trouble, o.state = 'failed' as again, o.by, o.created_at, o.finished_at
          from output o where not exists (select from run r where r.job_id = o.job_id and r.finished_at = o.finished_at)
          order by o.state in ('waiting', 'working') desc, o.created_at desc limit $1)
         union all
         (select 'intake', id::text, name, job_id, case state when 'surveyed' then 'working' else state end, 'taking in', done, total,
            case state when 'failed' then trouble end, state = 'failed' and blob_id is not null, by, created_at, finished_at
          from intake where state <> 'done' order by created_at desc limit $1)
         union all
         (select 'measure', j.job_id::text, '', j.job_id,
            case when bool_or(m.state = 'working') then 'working' when bool_or(m.state = 'waiting') then 'waiting' else 'failed' end, 'reading the pages',
            sum(case m.state when 'done' then m.total when 'working' then m.done else 0 end)::integer, sum(m.total)::integer,
            (array_agg(m.trouble) filter (where m.state = 'failed'))[1], bool_or(m.state = 'failed'), null, job.created_at, max(m.finished_at)
          from measure m join job_source j on j.sha256 = m.id join job on job.id = j.job_id
          group by j.job_id, job.created_at having bool_or(m.state <> 'done') order by job.created_at desc limit $1)
       ) as w join lateral (select title from job where job.id = w.job_id) as t on true`,
      [MOST],
    ),
  ]);
  const others = rows.map((row): WorkState => ({
    of: row.of,
    id: row.id,
    name: row.name,
    for: row.title,
    state: row.state,
    done: row.done,
    total: row.total,
    job: row.job_id,
    createdAt: row.created_at.toISOString(),
    ...(row.doing && row.state === 'working' ? { doing: row.doing } : {}),
    ...(row.trouble && row.state === 'failed' ? { trouble: row.trouble } : {}),
    ...(row.again && row.state === 'failed' ? { again: true } : {}),
    ...(row.by ? { by: row.by } : {}),
    ...(row.finished_at && row.state !== 'working' && row.state !== 'waiting'
      ? { finishedAt: row.finished_at.toISOString() }
      : {}),
  }));
  const ofRuns = runs.map(({ recipe, version, fileName, batch: _, ...run }): WorkState => ({
    ...run,
    of: 'run',
    name: fileName,
    for: `${recipe}, version ${version}`,
  }));
  const going = ({ state }: WorkState) => Number(state === 'waiting' || state === 'working');
  const all = [...ofRuns, ...others]
    .sort((a, b) => going(b) - going(a) || (a.createdAt < b.createdAt ? 1 : -1))
    .slice(0, 2 * MOST);
  const { rows: jobs } = await db().query<{ id: string; spread: WorkState['spread'] }>(
    "select id::text, summary->'spread' as spread from job where id = any($1)",
    [all.flatMap(({ job }) => job ?? [])],
  );
  const spreads = new Map(jobs.map(({ id, spread }) => [id, spread]));
  return all.map((each) => {
    const spread = each.job && spreads.get(each.job);
    return spread ? { ...each, spread } : each;
  });
}

const againSchema = z.object({ of: z.enum(['run', 'output', 'intake', 'measure']), id: z.uuid() });

/** Has work that failed tried again, as if it had never been begun. Throws Problem. */
export async function tryAgain(value: unknown): Promise<void> {
  const asked = againSchema.safeParse(value);
  if (!asked.success) throw new Problem(400, { code: 'not-again' });
  const { of, id } = asked.data;
  let begun = false;
  if (of === 'run') begun = await beginAgain('run', id, 'blob_id is not null');
  else if (of === 'output') {
    begun = await beginAgain('output', id);
    if (begun) enqueue('output', id);
  } else if (of === 'intake') {
    begun = await tryIntakeAgain(id);
    if (begun) enqueue('survey', id);
  } else
    for (const sha256 of await unmeasuredOf(id))
      if (await beginAgain('measure', sha256)) {
        begun = true;
        enqueue('measure', sha256);
      }
  if (!begun) throw new Problem(409, { code: 'not-again' });
}
