import { randomUUID } from 'node:crypto';
import { hostname } from 'node:os';
import { SILENT_SECONDS } from './claims';
import { db } from './db';

/** This process, among all workers on all machines. */
const ME = randomUUID();
/** Workers that were not heard of for so long are deleted from the list. */
const FORGOTTEN_SECONDS = 3600;

/** Says that this worker is at work. */
export async function sayAlive(): Promise<void> {
  await db().query(
    'insert into worker (id, host, pid) values ($1, $2, $3) on conflict (id) do update set seen_at = now()',
    [ME, hostname(), process.pid],
  );
}

/** Forgets workers that were not heard of for long. */
export async function forgetWorkers(): Promise<void> {
  await db().query('delete from worker where seen_at < now() - make_interval(secs => $1)', [
    FORGOTTEN_SECONDS,
  ]);
}

/** Says that this worker has ended. */
export async function sayGone(): Promise<void> {
  await db().query('delete from worker where id = $1', [ME]);
}

/** The workers heard of lately. */
export async function listWorkers(): Promise<{ host: string; pid: number; startedAt: string }[]> {
  const { rows } = await db().query<{ host: string; pid: number; started_at: Date }>(
    'select host, pid, started_at from worker where seen_at > now() - make_interval(secs => $1) order by started_at',
    [SILENT_SECONDS],
  );
  return rows.map(({ host, pid, started_at }) => ({ host, pid, startedAt: started_at.toISOString() }));
}
