import type { Trouble } from '../words/troubles';
import { isAway } from './away';

/** Full disks as the system says it, and PostgreSQL (SQLSTATE 53100). */
const NO_ROOM: readonly unknown[] = ['ENOSPC', 'EDQUOT', '53100'];

/** What to tell of an error that ended a piece of work: what it says itself, or that there is no room or no database; undefined if nobody foresaw it. */
export function troubleOf(error: unknown): Trouble | undefined {
  const { trouble, code } = (error ?? {}) as { trouble?: Trouble; code?: unknown };
  if (trouble) return trouble;
  if (NO_ROOM.includes(code)) return { code: 'disk-full' };
  return isAway(error) ? { code: 'database-away' } : undefined;
}
