import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { keyOf, RECORDS } from '../src/lib/words/language';

/** The parts of a template that begins behind its backtick, and where it ends; of templates within it, too. */
function templateAt(source: string, from: number, found: string[]): { parts: string[]; end: number } {
  const parts: string[] = [''];
  const add = (text: string) => parts.push((parts.pop() ?? '') + text);
  for (let i = from; i < source.length; i++) {
    const c = source[i]!;
    if (c === '\\') add(source[++i]!);
    else if (c === '`') return { parts, end: i };
    else if (c === '$' && source[i + 1] === '{') {
      i = expressionAt(source, i + 2, found);
      parts.push('');
    } else add(c);
  }
  throw new Error(`a template does not end: ${source.slice(from, from + 60)}`);
}

/** Where an expression within a template ends; the sentences in it are found, too. */
function expressionAt(source: string, from: number, found: string[]): number {
  for (let [i, depth] = [from, 0]; i < source.length; i++) {
    const c = source[i]!;
    if (c === '{') depth++;
    else if (c === '}' && depth-- === 0) return i;
    else if (c === "'" || c === '"') while (source[++i] !== c) if (source[i] === '\\') i++;
    if (c === '`') i = take(source, i, found);
  }
  throw new Error('an expression in a template does not end');
}

/** Takes the template at a backtick; it is a sentence where `t` stands before it. Returns where it ends. */
function take(source: string, at: number, found: string[]): number {
  const { parts, end } = templateAt(source, at + 1, found);
  if (/(^|[^\w$.])t$/.test(source.slice(Math.max(0, at - 2), at))) found.push(keyOf(parts));
  return end;
}

/** The keys of all sentences in a source file. */
export function sentencesIn(source: string): string[] {
  const found: string[] = [];
  for (const { index } of source.matchAll(/(?<![\w$.])t`/g)) take(source, index + 1, found);
  for (const [, one, many] of source.matchAll(
    /\bplural\((?:[^(),]|\([^()]*\))+,\s*'([^']+)'(?:,\s*'([^']+)')?/g,
  ))
    found.push(one!, many ?? `${one}s`);
  return found;
}

const ROOMS = ['src/lib/words', 'src/lib/ui', 'src/routes'];
const FILES = ['src/hooks.server.ts'];

/** The sources of all that the interface says. */
export const sourcesOf = (root: string): string[] => [
  ...FILES.map((file) => join(root, file)),
  ...ROOMS.flatMap((room) =>
    readdirSync(join(root, room), { recursive: true, encoding: 'utf8' })
      .filter((file) => /\.(svelte|ts)$/.test(file) && !file.endsWith('.test.ts'))
      .map((file) => join(root, room, file)),
  ),
];

/** The keys of all that the interface can say: sentences in its sources, and words in the records. */
export function allKeys(root: string): Set<string> {
  const keys = new Set(sourcesOf(root).flatMap((file) => sentencesIn(readFileSync(file, 'utf8'))));
  const words = (record: object): void => {
    for (const [name, value] of Object.entries(record))
      if (value && typeof value === 'object') words(value as object);
      else if (typeof value === 'string' && name !== 'group' && /\p{L}{2}/u.test(value)) keys.add(value);
  };
  RECORDS.forEach(words);
  return keys;
}
