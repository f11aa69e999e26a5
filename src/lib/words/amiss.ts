import type { Amiss } from '../core/docket/amiss';
import { t } from './language';

/** Why something could not be read: what the validator found, or a sentence about it. */
export type Reason = string | number | Amiss;

const WHY: Record<Amiss['why'], (than: string) => string> = {
  least: (than) => t`it is at least ${than}`,
  most: (than) => t`it is at most ${than}`,
  'one-of': (than) => t`it is one of ${than}`,
  missing: () => t`nothing is said there`,
  type: (than) => t`it is to be of the type ${than}`,
  unknown: (than) => t`nothing is known of ${than}`,
  number: () => t`a number is wanted`,
  words: () => t`words are wanted`,
  nowhere: (than) => t`nothing in it is where “${than}” goes`,
  other: () => t`it is not written as it must be`,
};

/** Where in a docket or a recipe something stands: `step 3, width`. */
function sayWhere([first, second, ...rest]: readonly (string | number)[]): string {
  if (first === undefined) return t`the whole`;
  if (first === 'steps' && typeof second === 'number') return [t`step ${second + 1}`, ...rest].join(', ');
  return [first, ...(second === undefined ? [] : [second]), ...rest].join(', ');
}

/** Why a value is none that can be used. */
export const sayReason = (reason: Reason): string =>
  typeof reason === 'object' ? WHY[reason.why](reason.than ?? '') : String(reason);

/** The same of something larger, with where in it the value stands. */
export const sayAmiss = (reason: Reason): string =>
  typeof reason === 'object' ? `${sayWhere(reason.at)}: ${sayReason(reason)}` : String(reason);
