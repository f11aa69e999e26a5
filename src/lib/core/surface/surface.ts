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

/** The faces that text is set in. */
export type Face = 'Source Sans 3';

/** A line of text in black. `matrix` leads from the text, its base line's anchor at the origin, to surface space. */
export interface TextItem {
  kind: 'text';
  text: string;
  face: Face;
  /** In points. */
  size: number;
  align: 'left' | 'centre' | 'right';
  matrix: Matrix;
}

export type Item = ArtItem | LineItem | TextItem;

/** One thing with a size that gets drawn, on screen and in PDF alike. Points, y up; `media` says where its edges are. */
export interface Surface {
  media: Box;
  bleed: Box;
  trim: Box;
  items: readonly Item[];
}
