import type { Box } from '../measure/box';
import type { Matrix } from '../measure/matrix';

/** A page of a source, seen through `clip` (surface space) under `matrix` (from the source page as seen to surface space). */
export interface ArtItem {
  kind: 'art';
  source: string;
  index: number;
  matrix: Matrix;
  clip: Box;
}

/** A straight line. Ink `all` prints on every plate (the colorant All of ISO 32000-1, 8.6.6.4). */
export interface LineItem {
  kind: 'line';
  x0: number;
  y0: number;
  x1: number;
  y1: number;
  width: number;
  dash: readonly number[];
  ink: 'all';
  layer: 'marks' | 'folds';
}

export type Item = ArtItem | LineItem;

/** One thing with a size that gets drawn, on screen and in PDF alike. Points, y up; `media` says where its edges are. */
export interface Surface {
  media: Box;
  bleed: Box;
  trim: Box;
  items: readonly Item[];
}
