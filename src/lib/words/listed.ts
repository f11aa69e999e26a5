import { t } from './language';
import { lastOf } from '../core/entries';

/** Words as a sentence lists them: `a, b and c`. */
export const listed = (words: readonly string[]): string =>
  words.length < 2 ? (words[0] ?? '') : t`${words.slice(0, -1).join(', ')} and ${lastOf(words)}`;
