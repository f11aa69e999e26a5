import type { CoverPart } from '../core/model/page';
import type { Book, Side } from '../core/model/page';

/** Where a page lies, by its side. */
export const WHERE: Record<Side, string> = {
  left: 'on the left',
  right: 'on the right',
  upper: 'above',
  lower: 'below',
};

/** Where the spine is, by the side on which fronts of leaves lie. */
export const SPINE_OF: Record<Side, string> = { right: 'left', left: 'right', lower: 'head', upper: 'foot' };

/** How the pages of a book lie. */
export const sayBook = ({ facing, first, spine }: Book): string =>
  `${facing ? `Facing pages, first ${WHERE[first]}` : 'Loose pages'}${spine === 'left' ? '' : `, spine at the ${spine}`}`;

/** What the parts of a cover are called. */
export const COVER_WORD: Record<CoverPart, string> = {
  outside: 'whole outside',
  inside: 'whole inside',
  front: 'front',
  spine: 'spine',
  back: 'back',
  'front-flap': 'front flap',
  'back-flap': 'back flap',
  'inside-front': 'inside front',
  'inside-back': 'inside back',
};
