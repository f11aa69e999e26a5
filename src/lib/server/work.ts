import type { Trouble } from '../words/errors';
import { db } from './db';
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
            case o.state when 'making' then 'working' else o.state end as state, o.doing, o.done, o.total, o.trouble, o.created_at, o.finished_at
          from output o where not exists (select from run r where r.job_id = o.job_id and r.finished_at = o.finished_at)
          order by o.state in ('waiting', 'making') desc, o.created_at desc limit $1)
         union all
         (select 'intake', id::text, name, job_id, case state when 'failed' then 'failed' else 'working' end, 'taking in', done, total, trouble, created_at, null
          from intake where state <> 'done' order by created_at desc limit $1)
         union all
         (select 'measure', j.job_id::text, '', j.job_id,
            case when bool_or(s.measure = 'measuring') then 'working' else 'waiting' end, 'reading the pages',
            count(*) filter (where s.measure not in ('waiting', 'measuring'))::integer, count(*)::integer, null, job.created_at, null
          from source s join job_source j using (sha256) join job on job.id = j.job_id
          group by j.job_id, job.created_at having bool_or(s.measure in ('waiting', 'measuring')) order by job.created_at desc limit $1)
       ) as w join lateral (select summary->>'title' as title from job where job.id = w.job_id) as t on true`,
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
    ...(row.trouble ? { trouble: row.trouble } : {}),
    ...(row.finished_at ? { finishedAt: row.finished_at.toISOString() } : {}),
  }));
  const ofRuns = runs.map(({ recipe, version, fileName, batch: _, ...run }): WorkState => ({
    ...run,
    of: 'run',
    name: fileName,
    for: `${recipe}, version ${version}`,
  }));
  const going = ({ state }: WorkState) => Number(state === 'waiting' || state === 'working');
  return [...ofRuns, ...others]
    .sort((a, b) => going(b) - going(a) || (a.createdAt < b.createdAt ? 1 : -1))
    .slice(0, 2 * MOST);
}
