import { writeNumber } from '../../core/measure/decimalSign';
import { spoken, t } from '../language';
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

const EVERY = spoken({
  pages: 'every so many pages',
  sides: 'every so many sides',
  spreads: 'every so many spreads',
});
const countedParts = (count: number, kind: OutputKind): string =>
  ({
    pages: plural(count, 'page'),
    sides: plural(count, 'side'),
    spreads: plural(count, 'spread'),
  })[counted(kind)];

/** A way to split an output in words. */
export const splitName = (by: SplitBy, kind: OutputKind): string =>
  ({
    every: EVERY[counted(kind)],
    bookmarks: t`at bookmarks`,
    series: t`at number series`,
    pieces: t`by piece`,
    places: t`at pages of my own`,
    faces: counted(kind) === 'sides' ? t`fronts and backs apart` : t`odd and even pages apart`,
    size: t`by largest file`,
  })[by];

/** What stands on the output's line besides its kind: what of it goes out, and how it is split. */
export function sayOutput(output: Output): string[] {
  const said = outputWords(output.kind).says?.(output) ?? [];
  const split = 'split' in output ? output.split : undefined;
  if (!split) return said;
  const name = splitName(split.by, output.kind);
  if (split.by === 'every') return [...said, t`split every ${countedParts(split.count, output.kind)}`];
  return [...said, t`split ${split.by === 'size' ? t`${name}, ${split.mb} MB` : name}`];
}

/** How many bytes, as files are listed. */
export const sayBytes = (count: number): string =>
  count < 1e6 ? t`${Math.ceil(count / 1000)} kB` : t`${writeNumber((count / 1e6).toFixed(1))} MB`;

/** One of what the numbers of parts count: sides are told by their sheets. */
const NUMBERED = spoken({ pages: 'page', sides: 'sheet', spreads: 'spread' });
const NUMBERED_MANY = spoken({ pages: 'pages', sides: 'sheets', spreads: 'spreads' });

/** The pages that a part has: `pages 11–20`. */
export function sayPart(
  { from, to, pages }: { from?: number; to?: number; pages?: number },
  kind: OutputKind,
): string {
  if (from === undefined || to === undefined || pages === undefined || !splitsOf(kind).length) return '';
  const unit = NUMBERED[counted(kind)];
  const sides = counted(kind) === 'sides' ? `${plural(pages, 'side')}, ` : '';
  // Where some between are left out, how many there are says so.
  const some = !sides && pages < to - from + 1 ? t`${pages} of ` : '';
  return `${sides}${some}${from === to ? `${unit} ${from}` : `${NUMBERED_MANY[counted(kind)]} ${from}–${to}`}`;
}
