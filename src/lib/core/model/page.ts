import { type Art } from './art';
import type { Box, Sides, Size } from '../measure/box';
import type { Colour } from '../ink/colour';
import type { Laid } from './laid';
import type { Matter, PageLines } from './lines';
import type { Series } from './series';

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

/** A spot ink under another name, or printed with another ink. */
export interface InkChange {
  from: string;
  to: string;
}

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

/** What of a bound book's cover a page is. One piece: its whole outside or inside; else the parts that lie side by side. */
export const COVER_PARTS = [
  'outside',
  'inside',
  'front',
  'spine',
  'back',
  'front-flap',
  'back-flap',
  'inside-front',
  'inside-back',
] as const;
export type CoverPart = (typeof COVER_PARTS)[number];

/** The cover of a bound book, which is no part of the book's page list: its positions and numbers do not move for it. */
export type Cover = Readonly<Partial<Record<CoverPart, Page>>>;
