import type { Trouble } from '../words/errors';

/** Full disks as the system says it, and PostgreSQL (SQLSTATE 53100). */
const NO_ROOM: readonly unknown[] = ['ENOSPC', 'EDQUOT', '53100'];

/** What to tell of an error that ended a piece of work: what it says itself, or that there is no room; undefined where nobody foresaw it. */
export function troubleOf(error: unknown): Trouble | undefined {
  const { trouble, code } = (error ?? {}) as { trouble?: Trouble; code?: unknown };
  return trouble ?? (NO_ROOM.includes(code) ? { code: 'disk-full' } : undefined);
}
