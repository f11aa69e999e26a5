import { COVER_PARTS, type CoverPart } from '../model/page';
import type { Size } from '../measure/box';
import { backSide, frontSide } from './page';
import type { Book, Page, PageList, Side } from '../model/page';
import { commonestSize } from './sizes';

/** Parts that the whole outside, or the whole inside, stands in for. */
const WITHIN: Partial<Record<CoverPart, readonly CoverPart[]>> = {
  outside: ['front', 'spine', 'back', 'front-flap', 'back-flap'],
  inside: ['inside-front', 'inside-back'],
};

/** The first part that a cover would have twice: as two pages, or as a page and within a whole side. */
export function doubledPart(parts: readonly CoverPart[]): CoverPart | undefined {
  const twice = parts.find((part, n) => parts.indexOf(part) < n);
  return twice ?? parts.flatMap((part) => WITHIN[part] ?? []).find((within) => parts.includes(within));
}

/** A page longer across the spine than so many pages of the book is a whole side of its cover. */
const WHOLE_SIDE = 1.5;
/** A page shorter there than this share of one is a spine. */
const SPINE_SHARE = 0.5;

/** What pages, in their order, most likely are of the cover of a list; by practice. Fewer than pages if there are more of those than a cover has parts. */
export function likelyParts(pages: readonly { trim: Size }[], list: PageList): CoverPart[] {
  const along = ({ width, height }: Size) => (list.book.spine === 'head' ? height : width);
  const page = along(commonestSize(list.pages)!);
  const narrow = (at: number) => pages[at] && along(pages[at].trim) < SPINE_SHARE * page;
  if (pages[0] && along(pages[0].trim) > WHOLE_SIDE * page)
    return (['outside', 'inside'] as const).slice(0, pages.length);
  const known: CoverPart[] =
    pages.length === 3 && narrow(1)
      ? ['back', 'spine', 'front']
      : pages.length === 5 && narrow(2)
        ? ['back-flap', 'back', 'spine', 'front', 'front-flap']
        : pages.length === 2
          ? ['front', 'back']
          : pages.length === 3
            ? ['front', 'inside-front', 'back']
            : ['front', 'inside-front', 'inside-back', 'back', 'spine', 'front-flap', 'back-flap'];
  return known.slice(0, pages.length);
}

/** The half of the spread on which a part of the cover lies, seen from its own face. */
export function sideOfPart(part: CoverPart, book: Pick<Book, 'spine'>): Side {
  const behind = part === 'back' || part === 'back-flap' || part === 'inside-front';
  return behind ? backSide(book) : frontSide(book);
}

/** The pages of a list's cover with what they are; none if it has no cover. */
export const coverPages = ({ cover = {} }: Pick<PageList, 'cover'>): { part: CoverPart; page: Page }[] =>
  COVER_PARTS.flatMap((part) => (cover[part] ? [{ part, page: cover[part] }] : []));
