import { spoken, translated } from './language';
import type { LinePlace, TextAt } from '../core/model/lines';
import type { Purpose } from '../core/model/laid';
import type { NumberStyle } from '../core/model/series';
import type { Book } from '../core/model/page';

/** A number style as its first three numbers. */
export const STYLE_WORD: Record<NumberStyle, string> = spoken({
  none: 'none',
  D: '1 2 3',
  r: 'i ii iii',
  R: 'I II III',
  a: 'a b c',
  A: 'A B C',
});

/** What an overlay is for, as its layer is called. */
export const PURPOSE_WORD: Record<Purpose, string> = spoken({
  printing: 'Printing',
  cutting: 'Cutting',
  creasing: 'Creasing',
  perforating: 'Perforating',
});

/** A place across the leaf in words. */
export const PLACE_WORD: Record<LinePlace, string> = spoken({
  outer: 'outer edge',
  inner: 'inner edge',
  centre: 'centre',
  left: 'left',
  right: 'right',
});
/** The same on the pages of a book; those of one that is bound at the head have their spine at neither side. */
export const placeWord = (across: LinePlace, { spine }: Pick<Book, 'spine'>): string =>
  PLACE_WORD[spine !== 'head' ? across : across === 'outer' ? 'right' : across === 'inner' ? 'left' : across];
/** A place on the leaf: `foot, outer edge`. */
export const sayAt = ({ edge, across }: Pick<TextAt, 'edge' | 'across'>): string =>
  `${translated(edge)}, ${PLACE_WORD[across]}`;
