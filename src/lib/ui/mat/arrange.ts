import type { Size } from '../../core/measure/box';
import { spreadsOf } from '../../core/pages/leaves';
import { bleedSides, sideOf, type PageList, type Side } from '../../core/pages/page';

/** A page's place on the mat: the trim's upper left corner in points, y down. */
export interface Tile {
  index: number;
  x: number;
  y: number;
  side: Side;
  faced: boolean;
}

export interface Arrangement extends Size {
  tiles: Tile[];
  columns: number;
}

const [MOST_COLUMNS, GUTTER, LABELS] = [8, 34, 46];

/** Spreads in rows as a reader meets them, each on the same spine line as those above it; `aspect` is the mat's width by its height. */
export function arrangeSpreads(list: PageList, aspect: number): Arrangement {
  const spreads = spreadsOf(list.pages.length, list.book);
  if (!spreads.length) return { tiles: [], width: 0, height: 0, columns: 1 };
  let [half, above, below, outside] = [0, 0, 0, 0];
  list.pages.forEach((page, index) => {
    const sides = bleedSides(page.bleed, sideOf(index, list.book));
    half = Math.max(half, page.trim.width);
    above = Math.max(above, sides.head);
    below = Math.max(below, page.trim.height + sides.foot);
    outside = Math.max(outside, sides.left, sides.right);
  });
  const slot = { width: 2 * (half + outside) + GUTTER, height: above + below + Math.max(LABELS, below * 0.1) };
  const wanted = Math.round(Math.sqrt((spreads.length * aspect * slot.height) / slot.width));
  const columns = Math.min(MOST_COLUMNS, Math.max(1, wanted), spreads.length);
  const tiles = spreads.flatMap((spread, n): Tile[] => {
    const spine = (n % columns) * slot.width + half + outside;
    const y = Math.floor(n / columns) * slot.height + above;
    const faced = spread.left !== undefined && spread.right !== undefined;
    return (['left', 'right'] as const).flatMap((side) => {
      const index = spread[side];
      return index === undefined ? [] : [{ index, side, faced, y, x: side === 'right' ? spine : spine - list.pages[index]!.trim.width }];
    });
  });
  return { tiles, columns, width: columns * slot.width - GUTTER, height: Math.ceil(spreads.length / columns) * slot.height };
}

/** Sizes standing on base lines, like cards on a shelf; boards wrap at about `across` points. */
export function arrangeShelf(sizes: readonly Size[], across: number): Arrangement {
  const tiles: Tile[] = [];
  let [x, y, width] = [0, 0, 0];
  let row: { index: number; x: number }[] = [];
  const close = () => {
    if (!row.length) return;
    const tall = Math.max(...row.map(({ index }) => sizes[index]!.height));
    for (const { index, x: at } of row) tiles.push({ index, x: at, y: y + tall - sizes[index]!.height, side: 'right', faced: false });
    y += tall + LABELS;
    [row, x] = [[], 0];
  };
  sizes.forEach((size, index) => {
    if (row.length && x + size.width > across) close();
    row.push({ index, x });
    x += size.width + GUTTER / 2;
    width = Math.max(width, x - GUTTER / 2);
  });
  close();
  return { tiles, columns: 1, width, height: Math.max(0, y) };
}
