import { LengthError, type LengthErrorCode } from '../core/measure/parseLength';
import { MOST_POINTS } from '../core/measure/pageLength';

const SAY: Record<LengthErrorCode, (error: LengthError) => string> = {
  empty: () => 'Type a length, such as 210, 8.5in or 297/3.',
  unexpected: ({ seen }) =>
    `“${seen}” cannot be read here. Lengths look like 210, 8.5in, 1/8in, 12p6 or 210-30.`,
  'unknown-unit': ({ seen }) => `“${seen}” is no unit known here. Use mm, cm, in, pt or p (picas).`,
  area: () => 'A length times a length is an area. Multiply by a plain number.',
  'divide-by-zero': () => 'Dividing by zero gives no length.',
  'not-finite': () => 'This number is too large to be a length.',
};

/** The sentence for a typed length that was refused. */
export const sayLengthError = (error: LengthError): string => SAY[error.code](error);

/** Why a length in points cannot be the side of a page; undefined when it can. */
export function sayPageLength(points: number): string | undefined {
  if (points <= 0) return 'A page needs a side longer than 0.';
  if (points > MOST_POINTS)
    return 'Longer than 200 in (5080 mm), the largest page a PDF reader promises to open.';
  return undefined;
}

/** A scale as a percentage, to a hundredth: `70.71 %`. */
export const sayPercent = (scale: number): string => `${Math.round(scale * 10_000) / 100} %`;
