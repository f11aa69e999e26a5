import type { Present } from '../wire/told';
import { db, idFrom } from './db';
import { WAKE } from './queue';

/** A window that was not heard of for so long is closed, or its machine is away. */
const GONE_SECONDS = 4;

/** Says that a window has a job open, and returns the others that have. */
export async function presentIn(
  jobId: string,
  { window, person, doing }: { window: string; person: string | null; doing: string | null },
): Promise<Present[]> {
  await db().query(
    `insert into presence (job_id, "window", person, doing) values ($1, $2, $3, $4)
     on conflict (job_id, "window") do update set person = $3, doing = $4, seen_at = now()`,
    [jobId, window, person, doing],
  );
  const { rows } = await db().query<{ window: string; person: string | null; doing: string | null }>(
    `select "window", person, doing from presence
     where job_id = $1 and "window" <> $2 and seen_at > now() - make_interval(secs => $3) order by seen_at desc limit 20`,
    [jobId, window, GONE_SECONDS],
  );
  return rows.map(({ window: id, person: name, doing: what }) => ({
    window: id,
    ...(name ? { person: name } : {}),
    ...(what ? { doing: what } : {}),
  }));
}

/** Somebody looks at the list of jobs and will have one open soon: what stands by for that may begin. */
export async function sayPersonCame(): Promise<void> {
  await db().query("select pg_notify($1, 'person')", [WAKE]);
}

/** Whether anybody has a job open. */
export async function isSomebodyThere(): Promise<boolean> {
  const { rowCount } = await db().query(
    'select from presence where seen_at > now() - make_interval(secs => $1) limit 1',
    [GONE_SECONDS],
  );
  return !!rowCount;
}

/** A window was closed. */
export async function leave(jobId: string, window: string): Promise<void> {
  await db().query('delete from presence where job_id = $1 and "window" = $2', [
    idFrom(jobId),
    idFrom(window),
  ]);
}

/** Forgets windows that are gone. */
export async function forgetWindows(): Promise<void> {
  await db().query("delete from presence where seen_at < now() - interval '1 hour'");
}
