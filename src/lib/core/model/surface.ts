import type { Box } from '../measure/box';
import type { Matrix } from '../measure/matrix';
import type { Layer } from './laid';
import type { Setting } from './faces';
import type { Colour } from '../ink/colour';

/** A page of a source, seen through `clip` (surface space) under `matrix` (from the source page as seen to surface space). */
export interface ArtItem {
  kind: 'art';
  source: string;
  index: number;
  matrix: Matrix;
  clip: Box;
  /** It was laid on the page: how, and what of the source page it may show. */
  laid?: { reach: Box; opacity?: number; behind?: true; layer?: Layer; overprint?: true };
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
  ink: 'all' | Colour;
  layer?: 'marks' | 'folds' | 'cut-path' | 'fold-path';
}

/** A line of text. `matrix` leads from the text, its base line's anchor at the origin, to surface space. */
export interface TextItem extends Setting {
  kind: 'text';
  text: string;
  ink: Colour;
  align: 'left' | 'centre' | 'right';
  matrix: Matrix;
  /** It is there to be found and copied, and not printed or seen (text rendering mode 3 of ISO 32000-1, 9.3.6). */
  unseen?: true;
}

/** A straight mark that prints on every plate, on the layer of the marks unless told otherwise. */
export const markLine = (
  { x0, y0, x1, y1 }: Box,
  width: number,
  more: Partial<Pick<LineItem, 'dash' | 'ink' | 'layer'>> = {},
): LineItem => ({ kind: 'line', x0, y0, x1, y1, width, dash: [], ink: 'all', layer: 'marks', ...more });

/** The layers of the output that printer's marks are on. */
export const MARK_LAYERS: Record<NonNullable<LineItem['layer']>, Layer> = {
  marks: { name: 'Marks', purpose: 'printing' },
  folds: { name: 'Fold marks', purpose: 'printing' },
  'cut-path': { name: 'Cut paths', purpose: 'cutting', hidden: true },
  'fold-path': { name: 'Fold paths', purpose: 'creasing', hidden: true },
};

/** A filled rectangle, or the line of a circle. */
export interface RectItem {
  kind: 'rect';
  box: Box;
  ink: 'all' | Colour;
  layer: 'marks';
}
export interface CircleItem {
  kind: 'circle';
  x: number;
  y: number;
  radius: number;
  width: number;
  ink: 'all' | Colour;
  layer: 'marks';
}

export type Item = ArtItem | LineItem | TextItem | RectItem | CircleItem;

/** One thing with a size that gets drawn, on screen and in PDF alike. Points, y up; `media` says where its edges are. */
export interface Surface {
  media: Box;
  bleed: Box;
  trim: Box;
  items: readonly Item[];
}
