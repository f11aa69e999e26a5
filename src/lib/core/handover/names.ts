import { readPatternOf } from '../numbers/pattern';

/**
 * What the name of a file may hold besides its own words: the job's title, the name of its first source, the part, the first
 * and the last page of it, the size of its pages, how they go on sheets, and the day.
 */
export const NAME_TOKENS = ['job', 'source', 'part', 'from', 'to', 'size', 'scheme', 'date'] as const;
export type NameToken = (typeof NAME_TOKENS)[number];
export type NameValues = Readonly<Record<NameToken, string>>;

/** File systems take 255 bytes as a rule; this leaves room for an ending, a number, and what a download adds. */
const MOST_BYTES = 180;
/** Names that a widespread file system keeps for devices, whatever their ending (from memory). */
const DEVICES = /^(con|prn|aux|nul|com\d|lpt\d)(\.|$)/i;

/**
 * A text as the name of a file that every usual file system takes: letters and digits of any script stay. What divides
 * paths, controls or names devices does not; it is no longer than 180 bytes of UTF-8 and never empty.
 */
export function safeName(text: string): string {
  const plain = text
    // First, so that what stood around them meets: two spaces, or a letter and its accent.
    .replace(/[\p{Cf}\p{Cs}\p{Co}\p{Cn}]/gu, '')
    .normalize('NFC')
    .replace(/[\p{Cc}\p{Zl}\p{Zp}\s]+/gu, ' ')
    .replace(/[<>:"/\\|?*]+/g, '_')
    .replace(/^[\s.]+/, '');
  let cut = '';
  let bytes = 0;
  for (const char of plain) {
    bytes += byteLength(char);
    if (bytes > MOST_BYTES) break;
    cut += char;
  }
  const ended = cut.replace(/[\s.]+$/, '');
  if (!ended) return 'file';
  return DEVICES.test(ended) ? `_${ended}` : ended;
}

/** How many bytes a character takes in UTF-8. */
const byteLength = (char: string): number => {
  const point = char.codePointAt(0)!;
  return point < 0x80 ? 1 : point < 0x800 ? 2 : point < 0x10000 ? 3 : 4;
};

/**
 * The names of files by a pattern, each safe, and no two the same in the eyes of any file system (capitals and ways to write
 * an accent do not tell them apart): later ones get a number. Throws PatternError.
 */
export function fileNames(pattern: string, files: readonly NameValues[], extension: string): string[] {
  const parts = readPatternOf(pattern, NAME_TOKENS);
  const taken = new Set<string>();
  return files.map((values) => {
    const stem = safeName(
      parts.map((part) => (typeof part === 'string' ? part : values[part.token])).join(''),
    );
    let name = `${stem}.${extension}`;
    for (let n = 2; taken.has(name.normalize('NFC').toLowerCase()); n++) name = `${stem} ${n}.${extension}`;
    taken.add(name.normalize('NFC').toLowerCase());
    return name;
  });
}

/** Numbers as wide as the widest of them, so that files sort as they follow each other; other words as they are. */
export function padded(values: readonly string[]): string[] {
  const numbers = values.every((value) => /^\d+$/.test(value));
  const width = Math.max(0, ...values.map(({ length }) => length));
  return numbers ? values.map((value) => value.padStart(width, '0')) : [...values];
}
