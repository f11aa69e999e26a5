import { bounds, grow, intersect, sizeBox, type Box, type Sides, type Size } from '../measure/box';
import { applyToBox, compose, type Matrix } from '../measure/matrix';
import type { SurveyPage } from './survey';

/** Which half of an open spread a page is; right-hand pages are rectos when the spine is at the left. */
export type Side = 'left' | 'right';

/** Bleed by the book's edges (follows the leaf when the page changes sides), or by physical sides as a file supplied it. */
export type Bleed = ({ by: 'edge' } & Edges) | ({ by: 'side' } & Sides);

/** Lengths at the book's four edges, in points. */
export interface Edges {
  head: number;
  foot: number;
  spine: number;
  fore: number;
}

/** Columns between the margins, `gap` points apart. */
export interface Columns {
  count: number;
  gap: number;
}

/** What a format can set, and a page can have of its own. */
export type Aspect = 'trim' | 'bleed' | 'margins';

/** What a page shows: a page of a source, placed. */
export interface Art {
  source: string;
  /** Page of the source, from 0. */
  index: number;
  /** From the source page as seen (see SurveyPage) to page space: origin at the trim's lower left corner. */
  place: Matrix;
  /** The part of the source page that is art, as seen: beyond it there is nothing, or printer's marks. */
  reach: Box;
}

/** One side of one leaf. Lengths in points. */
export interface Page {
  id: string;
  art?: Art;
  trim: Size;
  bleed: Bleed;
  /** The printed number that the source claims for it. */
  label?: string;
  /** Bleed that the art does not reach is filled with the art mirrored at its edge. */
  mirrored?: true;
  /** Where the trim was before anything was cropped away, in page space as it is now. */
  whole?: Box;
  /** From the trim inwards; mirrored on left-hand pages. */
  margins?: Edges;
  columns?: Columns;
  /** The format put on it, and which aspects were set otherwise since. */
  format?: { id: string; name: string; own: readonly Aspect[] };
  /** Which of several pieces in one job it belongs to, and how many of that are wanted. */
  piece?: { name: string; quantity: number };
}

export interface PageList {
  readonly pages: readonly Page[];
  readonly book: Book;
}

export interface Book {
  /** On which half of the spread the first page lies. */
  first: Side;
  /** Where the closed book, its front up, is bound: at the right it is read from right to left. */
  spine: Side;
  /** Leaves printed on both faces, pages facing each other; else loose pages, each the front of its own leaf. */
  facing: boolean;
}

/** The side on which the fronts of leaves lie: away from the spine. */
export const frontSide = (book: Book): Side => (book.spine === 'left' ? 'right' : 'left');

/** The side on which the backs of leaves lie: at the spine's own side. */
export const backSide = (book: Book): Side => book.spine;

/** The book bound at another edge: one that began with the front of a leaf still does. */
export const boundAt = (book: Book, spine: Book['spine']): Book => ({
  ...book,
  spine,
  first: book.first === frontSide(book) ? frontSide({ ...book, spine }) : backSide({ ...book, spine }),
});

/** Side of the page at `index` (from 0): it follows from the leaf, never from the printed number. */
export function sideOf(index: number, book: Book): Side {
  if (!book.facing) return frontSide(book);
  return (index % 2 === 0) === (book.first === 'right') ? 'right' : 'left';
}

/** Lengths at a book's edges as those at the four physical sides of a page lying on `side`. The spine is at the left of a right-hand page. */
export const sidesOf = ({ head, foot, spine, fore }: Edges, side: Side): Sides =>
  side === 'right' ? { left: spine, right: fore, head, foot } : { left: fore, right: spine, head, foot };

/** The bleed at the four physical sides of a page lying on `side`. */
export const bleedSides = (bleed: Bleed, side: Side): Sides =>
  bleed.by === 'edge'
    ? sidesOf(bleed, side)
    : { left: bleed.left, right: bleed.right, head: bleed.head, foot: bleed.foot };

/** The page with its content moved by `matrix` (page space to page space), its trim as given. */
export function movePage(page: Page, matrix: Matrix, trim: Size): Page {
  const { art, whole } = page;
  return {
    ...page,
    trim,
    ...(art ? { art: { ...art, place: compose(art.place, matrix) } } : {}),
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
export const artBox = (page: Page): Box | undefined => page.art && applyToBox(page.art.place, page.art.reach);

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
