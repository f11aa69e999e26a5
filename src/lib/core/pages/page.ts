import { bounds, grow, intersect, sizeBox, type Box, type Sides, type Size } from '../measure/box';
import { applyToBox, type Matrix } from '../measure/matrix';
import type { SurveyPage } from './survey';

/** Which half of an open spread a page is; right-hand pages are rectos when the spine is at the left. */
export type Side = 'left' | 'right';

/** Bleed by the book's edges (follows the leaf when the page changes sides), or by physical sides as a file supplied it. */
export type Bleed =
  | { by: 'edge'; head: number; foot: number; spine: number; fore: number }
  | { by: 'side'; head: number; foot: number; left: number; right: number };

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
}

export interface PageList {
  readonly pages: readonly Page[];
  readonly book: Book;
}

export interface Book {
  /** On which half of the spread the first page lies. */
  first: Side;
}

/** Side of the page at `index` (from 0): it follows from the leaf, never from the printed number. */
export const sideOf = (index: number, book: Book): Side =>
  (index % 2 === 0) === (book.first === 'right') ? 'right' : 'left';

/** The bleed at the four physical sides of a page lying on `side`. The spine is at the left of a right-hand page. */
export const bleedSides = (bleed: Bleed, side: Side): Sides =>
  bleed.by === 'side'
    ? { left: bleed.left, right: bleed.right, head: bleed.head, foot: bleed.foot }
    : {
        left: side === 'right' ? bleed.spine : bleed.fore,
        right: side === 'right' ? bleed.fore : bleed.spine,
        head: bleed.head,
        foot: bleed.foot,
      };

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
