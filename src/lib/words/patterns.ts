import { t } from './language';
import { NAME_TOKENS } from '../core/handover/names';
import type { PatternError } from '../core/numbers/pattern';

/** The sentence for a pattern that cannot be read, of those that may hold certain tokens. */
export function sayPatternError(
  { code, seen }: Pick<PatternError, 'code' | 'seen'>,
  tokens: readonly string[],
): string {
  switch (code) {
    case 'empty-pattern':
      return t`Nothing would be printed: write some words, or a token such as {${tokens[0]}}.`;
    case 'unknown-token':
      return t`{${seen}} means nothing here. There are ${listed(tokens)}.`;
    case 'open-brace':
      return t`The brace at “${seen}” has no partner. A token looks like {${tokens[0]}}; a brace itself is written twice.`;
  }
}

/** The same for a name of files, which must not be empty either. */
export const sayNameError = (error: Pick<PatternError, 'code' | 'seen'>): string =>
  error.code === 'empty-pattern'
    ? t`A file needs a name: write some words, or a token such as {job}.`
    : sayPatternError(error, NAME_TOKENS);

const listed = (tokens: readonly string[]): string =>
  tokens
    .map((token) => `{${token}}`)
    .join(', ')
    .replace(/, ([^,]*)$/, ' and $1');
