import type { Art } from '../model/art';
import type { Aspect, Bleed, Book, Edges, Page, PageList, Side, Spine } from '../model/page';
import { bounds, grow, intersect, sizeBox, type Box, type Sides, type Size } from '../measure/box';
import { applyToBox, compose, type Matrix } from '../measure/matrix';
import type { SurveyPage } from '../model/survey';

/** All that a page shows. */
export const artsOf = ({ art, more }: Page): readonly Art[] => (art ? [art, ...(more ?? [])] : []);

/** All that is laid on a page. */
export const laidOn = ({ laid }: Pick<Page, 'laid'>): Art[] => (laid ?? []).flatMap(({ arts }) => [...arts]);

/** All that is printed: the pages in reading order, then the faces of panels. Selections pick by index in this. */
export const facesOf = ({ pages, panels }: PageList): readonly Page[] =>
  panels?.length ? [...pages, ...panels] : pages;

/** The list with each page and panel face changed. */
export function mapFaces(list: PageList, change: (page: Page, index: number) => Page): PageList {
  const pages = list.pages.map(change);
  if (!list.panels?.length) return { ...list, pages };
  return { ...list, pages, panels: list.panels.map((page, n) => change(page, pages.length + n)) };
}

/** The page or panel face at an index of `facesOf`. */
export const faceAt = ({ pages, panels }: PageList, index: number): Page | undefined =>
  index < pages.length ? pages[index] : panels?.[index - pages.length];

/** The side on which the fronts of leaves lie: away from the spine. */
export const frontSide = ({ spine }: Pick<Book, 'spine'>): Side =>
  (({ left: 'right', right: 'left', head: 'lower' }) as const)[spine];

/** The side on which the backs of leaves lie, once they are turned over the spine. */
export const backSide = ({ spine }: Pick<Book, 'spine'>): Side => opposite(frontSide({ spine }));

/** The other half of the spread. */
export const opposite = (side: Side): Side =>
  (({ left: 'right', right: 'left', upper: 'lower', lower: 'upper' }) as const)[side];

/** The physical side of a page at which its spine is. */
export const spineAt = (side: Side): keyof Sides =>
  (({ left: 'right', right: 'left', upper: 'foot', lower: 'head' }) as const)[side];

/** The book is read from right to left, and so runs all that shows its pages in a row. */
export const isReadLeftwards = ({ spine, facing }: Book): boolean => spine === 'right' && facing;

/** The book bound at another edge: one that began with the front of a leaf still does. */
export const boundAt = (book: Book, spine: Spine): Book => ({
  ...book,
  spine,
  first: book.first === frontSide(book) ? frontSide({ spine }) : backSide({ spine }),
});

/** Side of the page at `index` (from 0): it follows from the leaf, never from the printed number. */
export function sideOf(index: number, book: Book): Side {
  const front = frontSide(book);
  if (!book.facing) return front;
  return (index % 2 === 0) === (book.first === front) ? front : opposite(front);
}

/** Side of the page or panel face at an index of `facesOf`: panels lie where the faces of their leaf do. */
export function sideAt(index: number, list: PageList): Side {
  const face = index < list.pages.length ? undefined : list.panels?.[index - list.pages.length]?.panel?.face;
  if (!face) return sideOf(index, list.book);
  return face === 'front' ? frontSide(list.book) : backSide(list.book);
}

/**
 * Lengths at a book's edges as those at the four physical sides of a page lying on `side`. The spine is at the left of a
 * right-hand page. A book bound at the head is one bound at the left, turned clockwise: its head is at the right.
 */
export function sidesOf({ head, foot, spine, fore }: Edges, side: Side): Sides {
  if (side === 'right') return { left: spine, right: fore, head, foot };
  if (side === 'left') return { left: fore, right: spine, head, foot };
  const across = { left: foot, right: head };
  return side === 'lower' ? { ...across, head: spine, foot: fore } : { ...across, head: fore, foot: spine };
}

/** The inverse of `sidesOf`. */
export function edgesOf({ left, right, head, foot }: Sides, side: Side): Edges {
  if (side === 'right') return { head, foot, spine: left, fore: right };
  if (side === 'left') return { head, foot, spine: right, fore: left };
  return side === 'lower'
    ? { head: right, foot: left, spine: head, fore: foot }
    : { head: right, foot: left, spine: foot, fore: head };
}

/** The bleed at the four physical sides of a page lying on `side`. */
export const bleedSides = (bleed: Bleed, side: Side): Sides =>
  bleed.by === 'edge'
    ? sidesOf(bleed, side)
    : { left: bleed.left, right: bleed.right, head: bleed.head, foot: bleed.foot };

/** The page with its content moved by `matrix` (page space to page space), its trim as given. */
export function movePage(page: Page, matrix: Matrix, trim: Size): Page {
  const { art, more, whole } = page;
  const moved = (one: Art): Art => ({ ...one, place: compose(one.place, matrix) });
  return {
    ...page,
    trim,
    ...(art ? { art: moved(art) } : {}),
    ...(more ? { more: more.map(moved) } : {}),
    ...(whole ? { whole: applyToBox(matrix, whole) } : {}),
  };
}

/** The page marked as differing from its format in an aspect, where it has a format. */
export const withOwn = (page: Page, aspect: Aspect): Page =>
  !page.format || page.format.own.includes(aspect)
    ? page
    : { ...page, format: { ...page.format, own: [...page.format.own, aspect] } };

/** Trim plus bleed in page space. */
export const bleedBox = (page: Page, side: Side): Box =>
  grow(sizeBox(page.trim), bleedSides(page.bleed, side));

/** Where the page's art reaches in page space; undefined for a blank. */
export const artBox = (page: Page): Box | undefined =>
  page.art && bounds(artsOf(page).map(({ place, reach }) => applyToBox(place, reach)));

/** The bleed that a file declares for a page: how far its BleedBox reaches beyond its TrimBox; none without a BleedBox. */
export function declaredBleed({ boxes: { bleed, trim }, given }: SurveyPage): Sides {
  const beyond = (length: number) => (given.includes('bleed') ? Math.max(0, length) : 0);
  return {
    left: beyond(trim.x0 - bleed.x0),
    right: beyond(bleed.x1 - trim.x1),
    head: beyond(bleed.y1 - trim.y1),
    foot: beyond(trim.y0 - bleed.y0),
  };
}

/**
 * The part of a source page that counts as art: its BleedBox where the file gives one, else its MediaBox;
 * never less than the trim, never more than the media.
 */
export const reachOf = ({ boxes, given }: SurveyPage): Box =>
  intersect(boxes.media, bounds([given.includes('bleed') ? boxes.bleed : boxes.media, boxes.trim]));
