import { TOKENS, type Token, type Values } from '../model/lines';
import { entryAt } from '../entries';
export type PatternErrorCode = 'empty-pattern' | 'unknown-token' | 'open-brace';

/** Why a pattern cannot be read: `seen` is the token, or what stands after the brace, `at` its index. */
export class PatternError extends Error {
  constructor(
    readonly code: PatternErrorCode,
    readonly seen: string,
    readonly at: number,
  ) {
    super(`${code} at ${at}`);
  }
}

export type Part<Of extends string = Token> = string | { token: Of };

/** The words and tokens of a pattern: `Page {page} of {pages}`; a brace itself is written twice. Throws PatternError. */
export const readPattern = (text: string): Part[] => readPatternOf(text, TOKENS);

/** The same for a pattern that may hold other tokens. Throws PatternError. */
export function readPatternOf<Of extends string>(text: string, tokens: readonly Of[]): Part<Of>[] {
  if (!text.trim()) throw new PatternError('empty-pattern', '', 0);
  const parts: Part<Of>[] = [];
  const say = (words: string) => {
    const last = parts.length - 1;
    if (typeof parts[last] === 'string') parts[last] += words;
    else if (words) parts.push(words);
  };
  const [wordsAt, tokenAt] = [/[^{}]+|\{\{|\}\}/y, /\{([^{}]*)\}/y];
  for (let at = 0; at < text.length;) {
    wordsAt.lastIndex = tokenAt.lastIndex = at;
    const words = wordsAt.exec(text)?.[0];
    if (words !== undefined) {
      say(words === '{{' ? '{' : words === '}}' ? '}' : words);
      at += words.length;
      continue;
    }
    const token = tokenAt.exec(text);
    if (!token) throw new PatternError('open-brace', text.slice(at, at + 12), at);
    const name = entryAt(token, 1).trim();
    const known = tokens.find((each) => each === name.toLowerCase());
    if (!known) throw new PatternError('unknown-token', name, at);
    parts.push({ token: known });
    at += token[0].length;
  }
  return parts;
}

/** Without one of these a pattern that asks for it says nothing: a page without a number has no folio. */
const NEEDED: readonly Token[] = ['page', 'label', 'number'];

/** Patterns read before: one is filled on every page. */
const read = new Map<string, readonly Part[]>();
/** Patterns that are kept at most. */
const MOST_READ = 500;

/** The pattern with what its tokens stand for; undefined if it has nothing to say on a page. Throws PatternError. */
export function fillPattern(text: string, values: Values): string | undefined {
  const parts = read.get(text) ?? readPattern(text);
  if (read.size < MOST_READ) read.set(text, parts);
  if (parts.some((part) => typeof part !== 'string' && NEEDED.includes(part.token) && !values[part.token]))
    return undefined;
  const filled = parts.map((part) => (typeof part === 'string' ? part : values[part.token])).join('');
  return filled.trim() ? filled : undefined;
}
