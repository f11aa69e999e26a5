import type { Box } from '../measure/box';
import type { CoverPart, Page, Spine } from '../model/page';
import type { CoverPlan, PlannedPage } from '../sheets/plan';
import { flatPieces, type Piece } from '../sheets/flat';
import { fromOutside, pagesPerLeaflet } from '../sheets/leaflet';
import { lengthAlong } from '../sheets/leafStrip';
import { schemeKind, type Scheme } from '../sheets/schemes';
import type { ToFinish } from './toFinish';
import { entryAt } from '../entries';

/** What a page of the finished piece is to show: a page of the job, or a part of one; nothing if it is to be blank. */
export interface Intended {
  /** What it is called: its position, a panel's address, or a part of the cover. */
  name: string;
  page?: Page;
  /** Of a page that goes over several: from its lower left corner. */
  part?: Box;
  /** The sheet has words of its own on it, which are no page's. */
  worded?: true;
}

/**
 * What is to be met in a product (see `Finished`), page by page as the line gives it: by the job's order of pages and by nothing
 * that is known of sheets. Nothing where sheets are no more than pictures of pages.
 */
export function intendedOf(job: ToFinish, product: number): Intended[] {
  const { list, plan, scheme } = job;
  if (scheme.kind === 'leaflet') {
    const each = pagesPerLeaflet(scheme);
    const first = (product - 1) * each;
    const own = fromOutside(
      Array.from({ length: each }, (_, n) => named(`${first + n + 1}`, list.pages[first + n])),
      scheme,
    );
    return own;
  }
  if (scheme.kind === 'flat') {
    const pieces = flatPieces(list);
    if (scheme.arrange !== 'sequence' && scheme.arrange !== 'stack') return facesOfPiece(pieces[product - 1]);
    const apart = pieces.filter(({ panels }) => panels.length);
    const inOrder = pieces.filter(({ panels }) => !panels.length);
    const grids = plan.sheetCount - apart.length;
    return product > grids
      ? facesOfPiece(apart[product - grids - 1])
      : inOrder.flatMap((piece) => facesOfPiece(piece));
  }
  if (scheme.kind !== 'stitched' && scheme.kind !== 'signatures') return [];
  return [...plan.pages.map(planned), ...coverFaces(job)];
}

/** Whether sheets of a scheme can be proved: those that are pictures of pages, for a screen, are not made into anything. */
export const canBeProved = ({ kind }: Pick<Scheme, 'kind'>): boolean => schemeKind(kind).makes !== 'nothing';

const named = (name: string, page: Page | undefined): Intended => ({ name, ...(page ? { page } : {}) });
const planned = ({ name, page }: PlannedPage): Intended => named(name, page);

/** A piece's front and back, then those of what folds out of it. */
const facesOfPiece = (piece: Piece | undefined): Intended[] =>
  piece
    ? [
        planned(piece.front),
        piece.back ? planned(piece.back) : named(`back of ${piece.front.name}`, undefined),
        ...piece.panels.flatMap(({ front, back }) => [planned(front), planned(back)]),
      ]
    : [];

/** Inner parts behind outer ones. */
const BEHIND: Partial<Record<CoverPart, CoverPart>> = { front: 'inside-front', back: 'inside-back' };

/** Each part of a cover, its outside and its inside in turn, as the parts lie. */
function coverFaces({ list, plan, scheme }: ToFinish): Intended[] {
  const { cover: pages, book } = list;
  const { cover } = plan;
  if (!pages || !cover) return [];
  return cover.parts.flatMap(({ part }, n) => {
    const behind = BEHIND[part];
    const [out, inner] = [part.replace('-', ' '), `inside of the ${part.replace('-', ' ')}`];
    const outside = pages.outside
      ? { name: out, ...partOf(pages.outside, cover, n, book.spine) }
      : named(out, pages[part]);
    const inside = pages.inside
      ? { name: inner, ...partOf(pages.inside, cover, cover.parts.length - 1 - n, book.spine, true) }
      : named(inner, behind && pages[behind]);
    const isWorded = part === 'spine' && 'cover' in scheme && !!scheme.cover?.text?.trim();
    return [isWorded ? { ...outside, worded: true as const } : outside, inside];
  });
}

/** The part of a whole side of a cover that lies at a place, the side being as large as all parts together, or in their middle. */
function partOf(
  page: Page,
  { parts, size }: CoverPlan,
  n: number,
  spine: Spine,
  isInside = false,
): Required<Pick<Intended, 'page' | 'part'>> {
  const lengths = parts.map(({ length }) => length);
  const own = isInside ? [...lengths].reverse() : lengths;
  const off = (lengthAlong(page.trim, spine) - lengthAlong(size, spine)) / 2;
  const from = off + own.slice(0, n).reduce((sum, length) => sum + length, 0);
  const to = from + entryAt(own, n);
  const { width, height } = page.trim;
  return {
    page,
    part: spine === 'head' ? { x0: 0, x1: width, y0: from, y1: to } : { x0: from, x1: to, y0: 0, y1: height },
  };
}
