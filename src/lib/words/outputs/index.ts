import type { Split } from '../../core/handover/split';
import { outputKind, splitsOf, type Output, type OutputKind } from '../../core/handover/outputs';
import { plural } from '../plural';
import { WORDS } from './kinds';
import type { OutputWords } from './outputWords';
import { ofAnyKind } from '../../core/kinds';

type AnyWords = Omit<OutputWords<OutputKind>, 'inName' | 'says'> & {
  inName(output: Output): string;
  says?(output: Output): string[];
};
/** The words of a kind of output, whichever it is. */
export const outputWords = (kind: OutputKind): AnyWords => ofAnyKind(WORDS[kind]);

export type SplitBy = Split['by'];
/** What the files of an output have: pages, sides or spreads. */
export const counted = (kind: OutputKind): 'pages' | 'sides' | 'spreads' =>
  outputKind(kind).counts ?? 'pages';

/** A way to split an output in words. */
export const splitName = (by: SplitBy, kind: OutputKind): string =>
  ({
    every: `every so many ${counted(kind)}`,
    bookmarks: 'at bookmarks',
    series: 'at number series',
    pieces: 'by piece',
    places: 'at pages of my own',
    faces: counted(kind) === 'sides' ? 'fronts and backs apart' : 'odd and even pages apart',
    size: 'by largest file',
  })[by];

/** What stands on the output's line besides its kind: what of it goes out, and how it is split. */
export function sayOutput(output: Output): string[] {
  const said = outputWords(output.kind).says?.(output) ?? [];
  const split = 'split' in output ? output.split : undefined;
  if (!split) return said;
  const name = splitName(split.by, output.kind);
  if (split.by === 'every') return [...said, `split ${name.replace('so many', String(split.count))}`];
  return [...said, `split ${split.by === 'size' ? `${name}, ${split.mb} MB` : name}`];
}

/** How many bytes, as files are listed. */
export const sayBytes = (count: number): string =>
  count < 1e6 ? `${Math.ceil(count / 1000)} kB` : `${(count / 1e6).toFixed(1)} MB`;

/** One of what the numbers of parts count: sides are told by their sheets. */
const NUMBERED = { pages: 'page', sides: 'sheet', spreads: 'spread' } as const;

/** The pages that a part has: `pages 11–20`. */
export function sayPart(
  { from, to, pages }: { from?: number; to?: number; pages?: number },
  kind: OutputKind,
): string {
  if (from === undefined || to === undefined || pages === undefined || !splitsOf(kind).length) return '';
  const unit = NUMBERED[counted(kind)];
  const sides = counted(kind) === 'sides' ? `${plural(pages, 'side')}, ` : '';
  // Where some between are left out, how many there are says so.
  const some = !sides && pages < to - from + 1 ? `${pages} of ` : '';
  return `${sides}${some}${from === to ? `${unit} ${from}` : `${unit}s ${from}–${to}`}`;
}
