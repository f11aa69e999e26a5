import type { Box, Size } from '../../core/measure/box';
import type { Matrix } from '../../core/measure/matrix';
import type { Gray } from '../../raster/gray';

/** A page of a PDF that can be drawn: its box in its own space, and how it is drawn through a matrix from there. */
export interface Drawable {
  size: Size;
  draw(matrix: Matrix, width: number, height: number): Gray;
}

/** What a page of a product is to show; nothing if it is to be blank. */
export type Wanted = { page: Drawable; part?: Box | undefined; worded?: boolean } | undefined;
