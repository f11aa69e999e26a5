import { t } from '../words/language';
/** How far work was when it was first seen, and when that was (ms). */
export interface FirstSeen {
  at: number;
  done: number;
}

/** Roughly how long work still goes on, by what was done since it was first seen; empty while it is too early to say, or nearly over. */
export function timeLeft(first: FirstSeen, done: number, total: number): string {
  const spent = (Date.now() - first.at) / 1000;
  const left = done > first.done ? Math.round((spent * (total - done)) / (done - first.done)) : 0;
  if (spent <= 3 || left <= 1) return '';
  return left < 100 ? t`about ${left} s left` : t`about ${Math.round(left / 60)} min left`;
}
