import { bounds, hasArea, intersect, sizeBox, type Box, type Size } from '../measure/box';
import { applyToBox, applyToPoint, compose, type Matrix } from '../measure/matrix';
import type { SheetLine, SheetSide } from './plan';
import { MARK_WEIGHT } from './marks/markSize';
import type { Colour } from '../ink/colour';
import { pageSurface } from '../surface/pageSurface';
import { markLine, type Item, type Surface } from '../model/surface';

/** One side of a sheet as it goes through the press; the origin is the sheet's lower left corner. */
export function sheetSurface(side: SheetSide, sheet: Size, weight = MARK_WEIGHT): Surface {
  const media = sizeBox(sheet);
  const art = side.cells.flatMap(({ page, side: lies, matrix, clip }): Item[] =>
    page ? pageSurface(page, lies).items.flatMap((item) => inCell(item, matrix, clip)) : [],
  );
  return {
    media,
    bleed: side.cells.length ? intersect(media, bounds(side.cells.map((cell) => cell.clip))) : media,
    trim: side.cells.length ? intersect(media, bounds(side.cells.map((cell) => cell.trim))) : media,
    items: [...art, ...marksOf(side.lines, weight), ...(side.marks ?? [])],
  };
}

/** An item of a page where its cell puts it; nothing if none of it shows there. */
function inCell(item: Item, matrix: Matrix, clip: Box): Item[] {
  if (item.kind === 'text') return [{ ...item, matrix: compose(item.matrix, matrix) }];
  if (item.kind === 'line') {
    const [from, to] = [applyToPoint(matrix, item.x0, item.y0), applyToPoint(matrix, item.x1, item.y1)];
    return [{ ...item, x0: from.x, y0: from.y, x1: to.x, y1: to.y }];
  }
  if (item.kind !== 'art') return [item];
  const shown = intersect(clip, applyToBox(matrix, item.clip));
  return hasArea(shown) ? [{ ...item, matrix: compose(item.matrix, matrix), clip: shown }] : [];
}

/** The items of lines, made once for all sides that share them. */
const made = new WeakMap<readonly SheetLine[], readonly Item[]>();
function marksOf(lines: readonly SheetLine[], weight: number): readonly Item[] {
  const known =
    made.get(lines) ?? lines.filter((line) => line.kind !== 'fold').map((line) => toItem(line, weight));
  made.set(lines, known);
  return known;
}

/** The inks that tools' paths are drawn in; their names are those of the processing steps (ISO 19593-1, from memory). */
const PATH_INK: Record<'cut-path' | 'fold-path', Colour> = {
  'cut-path': { as: 'spot', name: 'Cutting', tint: 1, mix: [0, 1, 0, 0] },
  'fold-path': { as: 'spot', name: 'Creasing', tint: 1, mix: [1, 0, 0, 0] },
};

function toItem({ kind, ...line }: SheetLine, width: number): Item {
  if (kind === 'fold-mark') return markLine(line, width, { dash: [3, 1.5, 0.5, 1.5], layer: 'folds' });
  if (kind === 'cut-path' || kind === 'fold-path')
    return markLine(line, width, { ink: PATH_INK[kind], layer: kind });
  return markLine(line, width);
}
