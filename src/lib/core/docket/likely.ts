import type { Page } from '../model/page';
import { CENTRE } from '../pages/resize';
import { oddOnes, piecesOf } from '../pages/sizes';
import type { Beginning } from './stepKind';
import type { StepOf } from './steps';
import { sizeLike } from './steps/trim';
import { firstOf } from '../entries';

/** The step, but for its id, that gives the odd pages of a piece the size of the one page selected, else the commonest; undefined if all are alike. */
export function evenSizes({ list: { pages }, indexes }: Beginning): Omit<StepOf<'trim'>, 'id'> | undefined {
  const chosen = indexes.length === 1 ? pages[firstOf(indexes)] : undefined;
  const piece = piecesOf(pages).find((those) => !chosen || those.includes(chosen));
  const odd = piece && oddOnes(piece, chosen?.trim);
  return odd && sizeLike(odd.pages, odd.like);
}

/** The step, but for its id, that makes a page once more, as a piece of another size. */
export const anotherSize = ({ id, trim, piece }: Page): Omit<StepOf<'copy'>, 'id'> => ({
  kind: 'copy',
  pages: { ids: [id] },
  where: { at: 'after', pages: { ids: [id] } },
  size: { ...trim, content: 'fit', fixed: CENTRE },
  piece: { name: `${piece?.name ?? 'Piece'} 2`, quantity: piece?.quantity ?? 1 },
});
