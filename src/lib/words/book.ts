import { spoken, t, translated } from './language';
import type { CoverPart } from '../core/model/page';
import type { Book, Side } from '../core/model/page';

/** Where a page lies, by its side. */
export const WHERE: Record<Side, string> = spoken({
  left: 'on the left',
  right: 'on the right',
  upper: 'above',
  lower: 'below',
});

/** A page by its side. */
export const SIDE_WORD: Record<Side, string> = spoken({
  left: 'left-hand',
  right: 'right-hand',
  upper: 'upper page',
  lower: 'lower page',
});

/** Where the spine is, by the side on which fronts of leaves lie. */
export const SPINE_OF: Record<Side, string> = spoken({
  right: 'left',
  left: 'right',
  lower: 'head',
  upper: 'foot',
});

/** How the pages of a book lie. */
export const sayBook = ({ facing, first, spine }: Book): string =>
  `${facing ? t`Facing pages, first ${WHERE[first]}` : t`Loose pages`}${spine === 'left' ? '' : t`, spine at the ${translated(spine)}`}`;

/** What the parts of a cover are called. */
export const COVER_WORD: Record<CoverPart, string> = spoken({
  outside: 'whole outside',
  inside: 'whole inside',
  front: 'front',
  spine: 'spine',
  back: 'back',
  'front-flap': 'front flap',
  'back-flap': 'back flap',
  'inside-front': 'inside front',
  'inside-back': 'inside back',
});
