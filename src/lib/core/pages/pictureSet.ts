/** What a file must be named that ends a set: whatever comes after it is of another one. */
const END_MARK = /^(?:end|done|complete)(?:\.[a-z]{1,4})?$/i;
export const isEndMark = (name: string): boolean => END_MARK.test(name);

/** Names of files that may be scans. */
const PICTURE = /\.(?:jpe?g|tiff?|png)$/i;
export const isPictureName = (name: string): boolean => PICTURE.test(name);

/** Words for the two sides of a sheet, as scanners and those who name files write them. */
const SIDES: readonly (readonly [front: string, back: string])[] = [
  ['front', 'back'],
  ['recto', 'verso'],
  ['fronts', 'backs'],
];
const SIDE = new RegExp(`(?<![a-z])(${SIDES.flat().join('|')})(?![a-z])`, 'i');

interface Named {
  name: string;
  /** The name without its ending and the word for its side. */
  sheet: string;
  side?: { word: string; back: boolean; pair: readonly [string, string] };
}

function read(name: string): Named {
  const stem = name.replace(/\.[^.]*$/, '');
  const word = SIDE.exec(stem)?.[1];
  const pair = SIDES.find((each) => each.includes(word?.toLowerCase() ?? ''));
  if (!word || !pair) return { name, sheet: stem };
  const sheet = stem.replace(SIDE, '').toLowerCase();
  return { name, sheet, side: { word, back: word.toLowerCase() === pair[1], pair } };
}

const natural = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/**
 * Names of scans in the order in which they were scanned: numbers count as such, 2 before 10; where names tell fronts from
 * backs, each back follows its front.
 */
export function inScanOrder<T>(files: readonly T[], nameOf: (file: T) => string): T[] {
  return files
    .map((file) => ({ file, ...read(nameOf(file)) }))
    .sort(
      (a, b) =>
        natural.compare(a.sheet, b.sheet) ||
        Number(a.side?.back ?? false) - Number(b.side?.back ?? false) ||
        natural.compare(a.name, b.name),
    )
    .map(({ file }) => file);
}

/** Files in the order in which they are taken in: pictures alone as they were scanned, all else as it was brought. */
export const inOrderTaken = <T>(files: readonly T[], nameOf: (file: T) => string): readonly T[] =>
  files.every((file) => isPictureName(nameOf(file))) ? inScanOrder(files, nameOf) : files;

/** The last number in a name, and what stands around it. */
const NUMBER = /^(.*?)(\d+)(\D*)$/s;
/** More missing names than these are not told one by one. */
const MOST_MISSING = 20;

/** Names that are missing from a set, as far as those that are there tell: a side of a sheet, or a number between others. */
export function missingFrom(names: readonly string[]): string[] {
  const all = names.map(read);
  const ending = /\.[^.]*$/.exec(names[0] ?? '')?.[0] ?? '';
  const sides = all.flatMap(({ name, sheet, side }) => (side ? [{ name, sheet, side }] : []));
  const others = sides
    .filter(({ sheet, side }) => !sides.some((each) => each.sheet === sheet && each.side.back !== side.back))
    .map(({ name, side: { word, back, pair } }) => name.replace(word, likeCase(word, pair[back ? 0 : 1])));
  const numbered = new Map<string, { n: number; digits: number; example: string }[]>();
  for (const { name, sheet } of all) {
    const [, head, digits, tail] = NUMBER.exec(sheet) ?? [];
    if (head === undefined || digits === undefined) continue;
    const key = `${head}#${tail}`;
    const known = numbered.get(key) ?? [];
    known.push({ n: Number(digits), digits: digits.length, example: name.replace(/\.[^.]*$/, '') });
    numbered.set(key, known);
  }
  const gaps = [...numbered.values()].flatMap((series) => {
    // Names that happen to have a number are no series.
    if (series.length < 2 || numbered.size > 1) return [];
    const there = new Set(series.map(({ n }) => n));
    const [least, most] = [Math.min(...there), Math.max(...there)];
    const { example, digits } = series[0]!;
    return Array.from({ length: Math.min(most - least, 5000) }, (_, n) => least + n)
      .filter((n) => !there.has(n))
      .map((n) => example.replace(/\d+(?=\D*$)/, String(n).padStart(digits, '0')) + ending);
  });
  return [...others, ...gaps].slice(0, MOST_MISSING);
}

const likeCase = (like: string, word: string): string =>
  like === like.toUpperCase()
    ? word.toUpperCase()
    : /^[A-Z]/.test(like)
      ? word[0]!.toUpperCase() + word.slice(1)
      : word;

/** What pictures of one set are called together: what their names have in common, without a number that is cut off. */
export function nameOfSet(names: readonly string[]): string {
  const [first = '', ...rest] = names.map((name) => name.replace(/\.[^.]*$/, ''));
  let common = first;
  for (const name of rest) while (!name.startsWith(common)) common = common.slice(0, -1);
  return common.replace(/[\s\d_.,-]+$/, '') || first;
}
