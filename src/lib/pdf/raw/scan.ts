/**
 * Reading PDF syntax (ISO 32000-1, 7.2 and 7.3) as places in bytes, without making objects of it. Positions are byte
 * offsets; ranges are half open. Throws RawUnfit if the bytes are not what the syntax wants.
 */
export class RawUnfit extends Error {}

export type Range = readonly [start: number, end: number];

// 0 regular, 1 white space, 2 delimiter (7.2.2, tables 1 and 2).
const CLASS = new Uint8Array(256);
for (const code of [0, 9, 10, 12, 13, 32]) CLASS[code] = 1;
for (const sign of '()<>[]{}/%') CLASS[sign.charCodeAt(0)] = 2;

const [OPEN, CLOSE, LESS, GREATER] = [0x28, 0x29, 0x3c, 0x3e];
const [SQUARE, SQUARE_END, SLASH, PERCENT] = [0x5b, 0x5d, 0x2f, 0x25];
const [BACKSLASH, CAPITAL_R] = [0x5c, 0x52];
const [PLUS, MINUS, DOT] = [0x2b, 0x2d, 0x2e];

const isDigit = (byte: number | undefined): boolean => byte !== undefined && byte >= 48 && byte <= 57;
const isRegular = (byte: number | undefined): boolean => byte !== undefined && CLASS[byte] === 0;

/** The first place from `at` on that is neither white space nor comment. */
export function skipSpace(bytes: Uint8Array, at: number): number {
  for (;;) {
    while (at < bytes.length && CLASS[bytes[at]!] === 1) at++;
    if (bytes[at] !== PERCENT) return at;
    while (at < bytes.length && bytes[at] !== 10 && bytes[at] !== 13) at++;
  }
}

/** The end of the word of regular characters that begins at `at`. */
export function skipRegular(bytes: Uint8Array, at: number): number {
  while (at < bytes.length && CLASS[bytes[at]!] === 0) at++;
  return at;
}

/** A whole number at `at`, with its end; undefined if there is none. */
export function readInteger(bytes: Uint8Array, at: number): { value: number; end: number } | undefined {
  let value = 0;
  let end = at;
  for (; isDigit(bytes[end]); end++) value = value * 10 + bytes[end]! - 48;
  return end > at && !isRegular(bytes[end]) ? { value, end } : undefined;
}

/** The reference `n g R` that begins at `at`, if one does. */
export function readReference(
  bytes: Uint8Array,
  at: number,
): { number: number; generation: number; end: number } | undefined {
  const number = readInteger(bytes, at);
  if (!number) return undefined;
  const generation = readInteger(bytes, skipSpace(bytes, number.end));
  if (!generation) return undefined;
  const sign = skipSpace(bytes, generation.end);
  return bytes[sign] === CAPITAL_R && !isRegular(bytes[sign + 1])
    ? { number: number.value, generation: generation.value, end: sign + 1 }
    : undefined;
}

/** Hears of the objects that are referred to, and where. */
type Met = (number: number, generation: number, at: number, end: number) => void;

/** The end of the one value that begins at `at`; `met` hears of what it refers to, wherever it is nested. */
export function skipValue(bytes: Uint8Array, at: number, met?: Met): number {
  const first = bytes[at];
  if (first === undefined) throw new RawUnfit('value expected');
  if (first === OPEN) return skipString(bytes, at);
  if (first === LESS && bytes[at + 1] !== LESS) return skipHex(bytes, at);
  if (first === LESS) return skipDict(bytes, at, met);
  if (first === SQUARE) {
    let inside = skipSpace(bytes, at + 1);
    while (bytes[inside] !== SQUARE_END) inside = skipSpace(bytes, skipValue(bytes, inside, met));
    return inside + 1;
  }
  if (first === SLASH) return skipRegular(bytes, at + 1);
  if (CLASS[first] !== 0) throw new RawUnfit('value expected');
  return isDigit(first) ? skipDigits(bytes, at, met) : skipWord(bytes, at);
}

function skipDict(bytes: Uint8Array, at: number, met?: Met): number {
  let inside = skipSpace(bytes, at + 2);
  while (bytes[inside] !== GREATER) {
    if (bytes[inside] !== SLASH) throw new RawUnfit('name expected');
    const value = skipSpace(bytes, skipRegular(bytes, inside + 1));
    inside = skipSpace(bytes, skipValue(bytes, value, met));
  }
  if (bytes[inside + 1] !== GREATER) throw new RawUnfit('dictionary does not end');
  return inside + 2;
}

/** The end of the reference or the number that begins with a digit. */
function skipDigits(bytes: Uint8Array, at: number, met?: Met): number {
  // One by one, here and below, and not as a list that is taken apart: this runs for each word of a file.
  let end = at;
  let number = 0;
  for (; isDigit(bytes[end]); end++) number = number * 10 + bytes[end]! - 48;
  if (isRegular(bytes[end])) return skipWord(bytes, at);
  const from = skipSpace(bytes, end);
  let next = from;
  let generation = 0;
  for (; isDigit(bytes[next]); next++) generation = generation * 10 + bytes[next]! - 48;
  if (next === from || isRegular(bytes[next])) return end;
  next = skipSpace(bytes, next);
  if (bytes[next] !== CAPITAL_R || isRegular(bytes[next + 1])) return end;
  met?.(number, generation, at, next + 1);
  return next + 1;
}

const WORDS = ['true', 'false', 'null'];
/** The end of a number or one of the words that are values; nothing else is one (7.3.2, 7.3.3, 7.3.9). */
function skipWord(bytes: Uint8Array, at: number): number {
  let end = at;
  let digits = 0;
  let dots = 0;
  if (bytes[end] === PLUS || bytes[end] === MINUS) end++;
  for (; isDigit(bytes[end]) || bytes[end] === DOT; end++)
    if (bytes[end] === DOT) dots++;
    else digits++;
  if (digits && dots < 2 && !isRegular(bytes[end])) return end;
  const word = WORDS.find((word) => standsAt(bytes, at, word));
  if (word === undefined || isRegular(bytes[at + word.length])) throw new RawUnfit('value expected');
  return at + word.length;
}

/** Calls `found` for every entry of the dictionary that begins at `at`: where its name begins, its slash left aside, and ends, and its value. */
export function eachEntry(
  bytes: Uint8Array,
  at: number,
  found: (name: number, nameEnd: number, start: number, end: number) => void,
): void {
  if (bytes[at] !== LESS || bytes[at + 1] !== LESS) throw new RawUnfit('dictionary expected');
  for (let inside = skipSpace(bytes, at + 2); bytes[inside] !== GREATER;) {
    if (bytes[inside] !== SLASH) throw new RawUnfit('name expected');
    const nameEnd = skipRegular(bytes, inside + 1);
    const start = skipSpace(bytes, nameEnd);
    const end = skipValue(bytes, start);
    found(inside + 1, nameEnd, start, end);
    inside = skipSpace(bytes, end);
  }
}

/** The entries of the dictionary that begins at `at`: name (as written, without the slash) and the range of its value. */
export function readDict(bytes: Uint8Array, at: number): Map<string, Range> {
  const entries = new Map<string, Range>();
  eachEntry(bytes, at, (name, nameEnd, start, end) =>
    entries.set(textOf(bytes, [name, nameEnd]), [start, end]),
  );
  return entries;
}

/** The ranges of some entries' values in the dictionary that begins at `at`; of a key that stands twice the last one counts, as in `readDict`. */
export function dictEntries(bytes: Uint8Array, at: number, keys: readonly string[]): (Range | undefined)[] {
  const found: (Range | undefined)[] = keys.map(() => undefined);
  eachEntry(bytes, at, (name, nameEnd, start, end) => {
    for (let n = 0; n < keys.length; n++)
      if (nameEnd - name === keys[n]!.length && standsAt(bytes, name, keys[n]!)) found[n] = [start, end];
  });
  return found;
}

/** The range of one entry's value. */
export const dictEntry = (bytes: Uint8Array, at: number, key: string): Range | undefined =>
  dictEntries(bytes, at, [key])[0];

/** The values in the array that begins at `at`. */
export function readArray(bytes: Uint8Array, at: number): Range[] {
  if (bytes[at] !== SQUARE) throw new RawUnfit('array expected');
  const values: Range[] = [];
  for (let inside = skipSpace(bytes, at + 1); bytes[inside] !== SQUARE_END;) {
    const end = skipValue(bytes, inside);
    values.push([inside, end]);
    inside = skipSpace(bytes, end);
  }
  return values;
}

/** Calls `met` for every reference in a range of whole values, wherever it is nested, in order. */
export function eachReference(bytes: Uint8Array, [start, end]: Range, met: Met): void {
  for (let at = start; at < end;) {
    const byte = bytes[at]!;
    if (isDigit(byte)) at = skipDigits(bytes, at, met);
    else if (byte === OPEN) at = skipString(bytes, at);
    else if (byte === LESS && bytes[at + 1] !== LESS) at = skipHex(bytes, at);
    else if (byte === LESS) at += 2;
    else if (byte === PERCENT) at = skipSpace(bytes, at);
    else if (byte === SLASH || CLASS[byte] === 0) at = skipRegular(bytes, at + 1);
    else at++;
  }
}

/** Whether these characters stand at `at`; makes no text of the bytes, which takes longer. */
export function standsAt(bytes: Uint8Array, at: number, text: string): boolean {
  for (let i = 0; i < text.length; i++) if (bytes[at + i] !== text.charCodeAt(i)) return false;
  return true;
}

/** Whether these characters stand somewhere in a range. */
export function standsWithin(bytes: Uint8Array, [from, to]: Range, text: string): boolean {
  const first = text.charCodeAt(0);
  for (let at = from; at <= to - text.length; at++)
    if (bytes[at] === first && standsAt(bytes, at, text)) return true;
  return false;
}

/** Texts that are longer than this are made faster by the platform. */
const LONG = 32;
export const textOf = (bytes: Uint8Array, [start, end]: Range): string => {
  if (end - start > LONG) return Buffer.prototype.latin1Slice.call(bytes, start, end);
  let text = '';
  for (let at = start; at < end; at++) text += String.fromCharCode(bytes[at]!);
  return text;
};

function skipString(bytes: Uint8Array, at: number): number {
  let depth = 0;
  for (let inside = at; inside < bytes.length; inside++) {
    const byte = bytes[inside];
    if (byte === BACKSLASH) inside++;
    else if (byte === OPEN) depth++;
    else if (byte === CLOSE && --depth === 0) return inside + 1;
  }
  throw new RawUnfit('string does not end');
}

function skipHex(bytes: Uint8Array, at: number): number {
  const end = bytes.indexOf(GREATER, at);
  if (end < 0) throw new RawUnfit('string does not end');
  return end + 1;
}
