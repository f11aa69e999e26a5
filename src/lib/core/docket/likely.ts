import type { Size } from '../measure/box';
import { mm } from '../measure/unit';
import type { Page, PageList } from '../model/page';
import { CENTRE } from '../pages/resize';
import { isNearly, oddOnes, piecesOf } from '../pages/sizes';
import { freshScheme, schemeSchema, type Scheme } from '../sheets/schemes';
import { emptyDocket, type Docket } from './docket';
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

/** Pages whose longer side is shorter are tickets, labels or cards, not a booklet's. */
const SMALL = mm(96);

/** What pages that were only taken in are likely to become: flat work, whose pages are pieces of their own or the two sides of one, else a booklet. */
export function likelyWork({ pages }: PageList): { kind: 'flat' | 'stitched'; facing: boolean } {
  const [first, ...others] = pages.map(({ trim }) => trim);
  const booklet = { kind: 'stitched', facing: true } as const;
  if (!first) return booklet;
  const isLike = (size: Size): boolean => isNearly(size, first);
  const one = others.every((size) => isLike(size) || isLike({ width: size.height, height: size.width }));
  const small = one && Math.max(first.width, first.height) < SMALL;
  // An even number of one size may be fronts and backs in turn.
  if (one && (pages.length === 2 || (small && pages.length % 2 === 0))) return { kind: 'flat', facing: true };
  const few = pages.length < 4;
  const mixed = others.length > 0 && others.every((size) => !isLike(size));
  return few || small || mixed ? { kind: 'flat', facing: false } : booklet;
}

/** A scheme as it is saved, its fields in one order. */
const plain = (scheme: Scheme): string => JSON.stringify(schemeSchema.parse(scheme));

/**
 * A docket whose pages were only taken in, as what they are likely to become, unless somebody chose otherwise: `before` is the
 * list when that was said last.
 */
export function asLikely(docket: Docket, before: PageList, now: PageList): Docket {
  const [was, is] = [likelyWork(before), likelyWork(now)];
  const begun = emptyDocket('').scheme;
  const said = was.kind === begun.kind ? begun : freshScheme(was.kind, before, begun).scheme;
  const isUntouched =
    docket.steps.every(({ kind }) => kind === 'take-in') &&
    docket.book.facing === was.facing &&
    plain(docket.scheme) === plain(said);
  if (!isUntouched || (was.kind === is.kind && was.facing === is.facing)) return docket;
  const fresh = is.kind === begun.kind ? { scheme: begun, book: {} } : freshScheme(is.kind, now, begun);
  return {
    ...docket,
    scheme: fresh.scheme,
    book: { ...docket.book, ...fresh.book, facing: is.facing },
  };
}
