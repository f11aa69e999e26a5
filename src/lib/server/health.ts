import { statfs } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { SILENT_SECONDS, WORK_KINDS, workCounts } from './claims';
import { db } from './db';
import { listWorkers } from './workers';

/** If the database takes longer than this to answer, it is reported as unreachable. */
const MOST_MS = 2000;
/** With less free disk space than this in the working directory, the health check fails. */
const LEAST_FREE_MB = 512;

/** The state of this installation, for monitoring. It says nothing about anybody's jobs. */
export interface Health {
  ok: boolean;
  database: { ok: boolean; ms?: number };
  workers: { ok: boolean; count: number };
  /** How much waits and is being worked, and how long the oldest piece has waited. */
  queue: { ok: boolean; waiting: number; working: number; oldestSeconds: number };
  disk: { ok: boolean; freeMb: number };
}

/** If work has been ready for this long and no worker has claimed it, something is wrong. */
const MOST_WAITING_SECONDS = 60 * SILENT_SECONDS;

export async function health(): Promise<Health> {
  const [answer, disk] = [ask(), statfs(tmpdir())];
  const freeMb = Math.floor(((await disk).bavail * (await disk).bsize) / (1 << 20));
  const room = { ok: freeMb >= LEAST_FREE_MB, freeMb };
  const told = await Promise.race([
    answer,
    new Promise<undefined>((late) => setTimeout(late, MOST_MS)),
  ]).catch(() => undefined);
  if (!told)
    return {
      ok: false,
      database: { ok: false },
      workers: { ok: false, count: 0 },
      queue: { ok: false, waiting: 0, working: 0, oldestSeconds: 0 },
      disk: room,
    };
  const parts = { ...told, disk: room };
  return { ok: Object.values(parts).every(({ ok }) => ok), ...parts };
}

async function ask(): Promise<Pick<Health, 'database' | 'workers' | 'queue'>> {
  const began = performance.now();
  await db().query('select 1');
  const ms = Math.round(performance.now() - began);
  const count = (await listWorkers()).length;
  const queue = { ok: true, waiting: 0, working: 0, oldestSeconds: 0 };
  for (const kind of WORK_KINDS) {
    const { waiting, working, oldestSeconds } = await workCounts(kind);
    queue.waiting += waiting;
    queue.working += working;
    queue.oldestSeconds = Math.max(queue.oldestSeconds, oldestSeconds);
  }
  queue.ok = queue.oldestSeconds < MOST_WAITING_SECONDS || queue.working > 0;
  return { database: { ok: true, ms }, workers: { ok: count > 0, count }, queue };
}
