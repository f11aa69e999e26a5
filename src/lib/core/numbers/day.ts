/**
 * The moment at which files are made: as SOURCE_DATE_EPOCH says (seconds since 1970, reproducible-builds.org), so that the same
 * work gives the same bytes on another day; else now.
 */
export function momentOf(epoch: string | undefined, now = new Date()): Date {
  return epoch && /^\d{1,11}$/.test(epoch) ? new Date(Number(epoch) * 1000) : now;
}

/** The day on which something happens where it happens, as YYYY-MM-DD: the one notion of today. */
export const dayOf = (at: Date): string =>
  [at.getFullYear(), at.getMonth() + 1, at.getDate()].map((part) => String(part).padStart(2, '0')).join('-');
