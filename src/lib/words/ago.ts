import { spokenNow, t, type Language } from './language';
/** Steps of time, the largest first, in milliseconds. */
const STEPS = [
  ['year', 365.25 * 86_400_000],
  ['month', 30.44 * 86_400_000],
  ['week', 7 * 86_400_000],
  ['day', 86_400_000],
  ['hour', 3_600_000],
  ['minute', 60_000],
] as const;
/** How each language writes dates (BCP 47). */
const LOCALE: Record<Language, string> = { en: 'en-GB', de: 'de-DE' };
const locale = (): string => LOCALE[spokenNow().language];

/** How long ago a moment was: `just now`, `5 minutes ago`, `yesterday`. `now` in milliseconds. */
export function sayAgo(at: string | number, now = Date.now()): string {
  const ms = new Date(at).getTime() - now;
  const step = STEPS.find(([, length]) => Math.abs(ms) >= length);
  return step
    ? new Intl.RelativeTimeFormat(locale(), { numeric: 'auto' }).format(Math.round(ms / step[1]), step[0])
    : t`just now`;
}

/** A moment in full: `28 November 2026 at 14:05`. */
export const sayMoment = (at: string | number): string =>
  new Intl.DateTimeFormat(locale(), { dateStyle: 'long', timeStyle: 'short' }).format(new Date(at));
