import { bounds, hasArea, intersect, sizeBox, type Box, type Size } from '../measure/box';
import { applyToBox, applyToPoint, compose, type Matrix } from '../measure/matrix';
import type { SheetLine, SheetSide } from '../sheets/plan';
import { pageSurface } from './pageSurface';
import type { Item, Surface } from './surface';

const HAIRLINE = 0.25;

/** One side of a sheet as it goes through the press; the origin is the sheet's lower left corner. */
export function sheetSurface(side: SheetSide, sheet: Size): Surface {
  const media = sizeBox(sheet);
  const art = side.cells.flatMap(({ page, side: lies, matrix, clip }): Item[] =>
    page ? pageSurface(page, lies).items.flatMap((item) => inCell(item, matrix, clip)) : [],
  );
  return {
    media,
    bleed: intersect(media, bounds(side.cells.map((cell) => cell.clip))),
    trim: intersect(media, bounds(side.cells.map((cell) => cell.trim))),
    items: [...art, ...marksOf(side.lines)],
  };
}

/** An item of a page where its cell puts it; nothing where none of it shows there. */
function inCell(item: Item, matrix: Matrix, clip: Box): Item[] {
  if (item.kind === 'text') return [{ ...item, matrix: compose(item.matrix, matrix) }];
  if (item.kind === 'line') {
    const [from, to] = [applyToPoint(matrix, item.x0, item.y0), applyToPoint(matrix, item.x1, item.y1)];
    return [{ ...item, x0: from.x, y0: from.y, x1: to.x, y1: to.y }];
  }
  const shown = intersect(clip, applyToBox(matrix, item.clip));
  return hasArea(shown) ? [{ ...item, matrix: compose(item.matrix, matrix), clip: shown }] : [];
}

/** The items of lines, made once for all sides that share them. */
const made = new WeakMap<readonly SheetLine[], readonly Item[]>();
function marksOf(lines: readonly SheetLine[]): readonly Item[] {
  const known = made.get(lines) ?? lines.filter((line) => line.kind !== 'fold').map(toItem);
  made.set(lines, known);
  return known;
}

const toItem = ({ kind, x0, y0, x1, y1 }: SheetLine): Item => ({
  kind: 'line',
  x0,
  y0,
  x1,
  y1,
  width: HAIRLINE,
  dash: kind === 'fold-mark' ? [3, 1.5, 0.5, 1.5] : [],
  ink: 'all',
  layer: kind === 'fold-mark' ? 'folds' : 'marks',
});
