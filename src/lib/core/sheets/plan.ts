import type { Box, Size } from '../measure/box';
import type { Matrix, Turn } from '../measure/matrix';
import type { Page, Side } from '../pages/page';

/** A page in its place in the plan; `page` is undefined for a blank that only fills the last sheet. */
export interface PlannedPage {
  /** Its place in the plan, from 1; faces of panels come after all pages. */
  position: number;
  /** What it is called: its position, or a panel's address. */
  name: string;
  label: string;
  side: Side;
  page?: Page;
}

/** One page's place on a sheet side. Boxes in points from the sheet side's lower left corner, as that side is seen. */
export interface Cell extends PlannedPage {
  trim: Box;
  /** Trim and as much bleed as does not run into a neighbour. */
  clip: Box;
  turn: Turn;
  /** From page space (origin at the page's trim) to the sheet side. */
  matrix: Matrix;
}

export interface SheetLine {
  kind: 'trim-mark' | 'fold-mark' | 'fold';
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

export interface SheetSide {
  cells: readonly Cell[];
  lines: readonly SheetLine[];
}

export interface Sheet {
  front: SheetSide;
  back: SheetSide;
}

/** Everything that a scheme works out. */
export interface SheetPlan {
  /** The sheet as it lies. */
  sheet: Size;
  /** The trim size of the cells: that of the most pages. */
  cell: Size;
  /** Width and height of sheet that the trims, the bleed, and the bleed with its marks take. */
  needed: { trims: Size; bleeds: Size; marks: Size };
  pages: readonly PlannedPage[];
  blanksAdded: number;
  sheetCount: number;
  /** The sheets themselves, worked out when they are first asked for. */
  readonly sheets: readonly Sheet[];
  /** The axis, as the front lies, about which the sheet is turned over. */
  turnAxis: 'vertical' | 'horizontal';
}
