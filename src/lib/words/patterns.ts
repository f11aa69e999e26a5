import type { PatternError } from '../core/numbers/pattern';

/** The sentence for a pattern that cannot be read, of those that may hold certain tokens. */
export function sayPatternError(
  { code, seen }: Pick<PatternError, 'code' | 'seen'>,
  tokens: readonly string[],
): string {
  switch (code) {
    case 'empty-pattern':
      return `Nothing would be printed: write some words, or a token such as {${tokens[0]}}.`;
    case 'unknown-token':
      return `{${seen}} means nothing here. There are ${listed(tokens)}.`;
    case 'open-brace':
      return `The brace at “${seen}” has no partner. A token looks like {${tokens[0]}}; a brace itself is written twice.`;
  }
}

const listed = (tokens: readonly string[]): string =>
  tokens
    .map((token) => `{${token}}`)
    .join(', ')
    .replace(/, ([^,]*)$/, ' and $1');
