import { bounds, grow, intersect, sizeBox, type Box, type Sides, type Size } from '../measure/box';
import { applyToBox, compose, type Matrix } from '../measure/matrix';
import type { Cover } from './cover';
import type { InkChange } from './inks';
import type { Laid } from '../numbers/laid';
import type { Matter, PageLines } from '../numbers/lines';
import type { Series } from '../numbers/series';
import type { Colour } from '../surface/colour';
import type { SurveyPage } from './survey';

/**
 * Which half of an open spread a page is: left and right of the spine, or above and below it in a book bound at the head.
 * Right-hand pages are rectos when the spine is at the left.
 */
export const SIDES = ['left', 'right', 'upper', 'lower'] as const;
export type Side = (typeof SIDES)[number];

/** Where the closed book, its front up, is bound: at the right it is read from right to left, at the head its leaves turn upwards. */
export const SPINES = ['left', 'right', 'head'] as const;
export type Spine = (typeof SPINES)[number];

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
  /** The source page draws nothing. */
  empty?: true;
  /** The source page was cut up: what lies beyond the reach is another page's. */
  cut?: true;
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
  /** It is a face of a fold-out panel. */
  panel?: PanelFace;
  /** The pair of facing pages that it must stay in: both have the same. */
  kept?: string;
  /** Words that stand in the middle of a page that shows nothing else. */
  words?: string;
  /** How large those are, in points, where not plain. */
  wordSize?: number;
  /** Their ink, where not black. */
  wordInk?: Colour;
  /** What else it shows besides `art`, where pages were joined on it. */
  more?: readonly Art[];
  /** Folios, running lines and numbered sets that steps put on it. */
  lines?: readonly PageLines[];
  /** What those say; there once the whole docket is carried out. */
  matter?: readonly Matter[];
  /** Stamps and overlays, the lowest first. */
  laid?: readonly Laid[];
}

/** All that a page shows. */
export const artsOf = ({ art, more }: Page): readonly Art[] => (art ? [art, ...(more ?? [])] : []);

/** All that is laid on a page. */
export const laidOn = ({ laid }: Pick<Page, 'laid'>): Art[] => (laid ?? []).flatMap(({ arts }) => [...arts]);

/** Where a face of a fold-out panel hangs. */
export interface PanelFace {
  /** Id of the panel, which its two faces share. */
  id: string;
  /** Id of a page of the leaf on whose fore edge it hangs. */
  on: string;
  face: 'front' | 'back';
  /** Over which face of its leaf it folds in. */
  folds: 'front' | 'back';
}

export interface PageList {
  /** The pages in reading order; their places are their positions, whatever hangs on their leaves. */
  readonly pages: readonly Page[];
  /** The faces of fold-out panels: front and back of each in turn, those of a leaf from its fore edge outwards. */
  readonly panels?: readonly Page[];
  /** The cover of a bound book, printed apart. */
  readonly cover?: Cover;
  readonly book: Book;
  /** The number series by where they begin; each lasts until the next. */
  readonly series?: readonly Series[];
  /** Spot inks under other names, in the order they were given. */
  readonly inks?: readonly InkChange[];
}

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

export interface Book {
  /** On which half of the spread the first page lies. */
  first: Side;
  spine: Spine;
  /** Leaves printed on both faces, pages facing each other; else loose pages, each the front of its own leaf. */
  facing: boolean;
  /** How faces of fold-out panels are numbered: 5a and 5b after their leaf, on from the last page, or not. */
  panels?: PanelNumbers | undefined;
}

export const PANEL_NUMBERS = ['lettered', 'continued', 'none'] as const;
export type PanelNumbers = (typeof PANEL_NUMBERS)[number];

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
