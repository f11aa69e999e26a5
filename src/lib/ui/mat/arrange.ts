import type { Size } from '../../core/measure/box';
import { spreadsOf } from '../../core/pages/leaves';
import { pagesOfLeaf, panelsOf, type Panel } from '../../core/pages/panels';
import { bleedSides, edgesOf, frontSide, isReadLeftwards, sideOf } from '../../core/pages/page';
import { SIDES, type Page, type PageList, type Side } from '../../core/model/page';
import { entryAt } from '../../core/entries';
import { oldTrim } from '../../core/pages/changes';
import { columnsOf } from '../../core/pages/margins';

/** A page's place on the mat: the trim's upper left corner in points, y down. */
export interface Tile {
  index: number;
  x: number;
  y: number;
  side: Side;
  faced: boolean;
  /** A panel folded in over its page: its other face is seen. */
  folded?: true;
}

export interface Arrangement extends Size {
  tiles: Tile[];
  columns: number;
}

const [MOST_COLUMNS, GUTTER, LABELS] = [8, 34, 46];

/**
 * Spreads in rows as a reader meets them (those of a book bound at the right from right to left), each on the same spine line as those above it; `aspect` is the mat's width by its
 * height. Loose pages stand alone, each as wide as it is. `fixedColumns` keeps as many in a row as there were.
 */
export function arrangeSpreads(
  list: PageList,
  aspect: number,
  fixedColumns?: number,
  folded: ReadonlySet<string> = new Set(),
): Arrangement {
  if (!list.book.facing) return arrangeLoose(list, aspect, fixedColumns);
  const spreads = spreadsOf(list.pages.length, list.book);
  if (!spreads.length) return { tiles: [], width: 0, height: 0, columns: 1 };
  const upright = list.book.spine === 'head';
  const hanging = hangingOn(list);
  const isOpen = ({ front }: Panel) => !folded.has(front.panel!.on);
  // Room on each side of the spine: along it, across the page, and beyond it at both ends.
  let [half, outside, before, behind] = [0, 0, 0, 0];
  list.pages.forEach((page, index) => {
    const side = sideOf(index, list.book);
    const { fore, head, foot } = edgesOf(bleedSides(page.bleed, side), side);
    const out = sum((hanging.get(index) ?? []).filter(isOpen).map(({ front }) => front.trim.width));
    half = Math.max(half, upright ? page.trim.height : page.trim.width + out);
    outside = Math.max(outside, fore);
    before = Math.max(before, upright ? foot : head);
    behind = Math.max(behind, upright ? page.trim.width + head : page.trim.height + foot);
  });
  const [along, across] = [2 * (half + outside), before + behind];
  /** Under each page of a book bound at the head stand its words. */
  const words = Math.max(LABELS, half * 0.14);
  const slot = upright
    ? { width: across + GUTTER, height: along + 2 * words }
    : { width: along + GUTTER, height: across + Math.max(LABELS, behind * 0.2) };
  const wanted = Math.round(Math.sqrt((spreads.length * aspect * slot.height) / slot.width));
  const columns = fixedColumns ?? Math.min(MOST_COLUMNS, Math.max(1, wanted), spreads.length);
  const tiles = spreads.flatMap((spread, n): Tile[] => {
    const step = isReadLeftwards(list.book) ? columns - 1 - (n % columns) : n % columns;
    const [x0, y0] = [step * slot.width, Math.floor(n / columns) * slot.height];
    const sides = SIDES.filter((side) => spread[side] !== undefined);
    const spine = half + outside;
    return sides.flatMap((side): Tile[] => {
      const index = spread[side]!;
      const { width, height } = entryAt(list.pages, index).trim;
      const at = {
        right: { x: x0 + spine, y: y0 + before },
        left: { x: x0 + spine - width, y: y0 + before },
        // The upper page has its label between itself and the spine.
        upper: { x: x0 + before, y: y0 + spine - height },
        lower: { x: x0 + before, y: y0 + spine + words },
      }[side];
      const page: Tile = { index, side, faced: sides.length === 2, ...at };
      return [page, ...panelTiles(hanging.get(index) ?? [], page, width, isOpen, list)];
    });
  });
  return {
    tiles,
    columns,
    width: columns * slot.width - GUTTER,
    height: Math.ceil(spreads.length / columns) * slot.height,
  };
}

/** The panels that hang beside each page, by its index: those of a leaf beside both of its pages. */
function hangingOn(list: PageList): Map<number, Panel[]> {
  const found = new Map<number, Panel[]>();
  for (const panel of panelsOf(list))
    for (const index of pagesOfLeaf(panel, list)) found.set(index, [...(found.get(index) ?? []), panel]);
  return found;
}

/** The faces of panels seen beside a page, open; or, where they are folded in over it, the other face of the first. */
function panelTiles(
  panels: readonly Panel[],
  page: Tile,
  width: number,
  isOpen: (panel: Panel) => boolean,
  list: PageList,
): Tile[] {
  const face = page.side === frontSide(list.book) ? 'front' : 'back';
  const right = page.side === 'right';
  const at = (shown: Page) => list.pages.length + list.panels!.indexOf(shown);
  const [first] = panels;
  if (first && !isOpen(first)) {
    if (first.folds !== face) return [];
    const over = first[face === 'front' ? 'back' : 'front'];
    const x = right ? page.x + width - over.trim.width : page.x;
    return [{ index: at(over), side: page.side, faced: true, x, y: page.y, folded: true }];
  }
  let out = right ? page.x + width : page.x;
  return panels.map((panel): Tile => {
    const shown = panel[face];
    if (!right) out -= shown.trim.width;
    const tile = { index: at(shown), side: page.side, faced: true, x: out, y: page.y };
    if (right) out += shown.trim.width;
    return tile;
  });
}

const sum = (lengths: readonly number[]): number => lengths.reduce((total, length) => total + length, 0);

/** Widths tried for rows of loose pages, as shares of the side of a mat that had just their area. */
const WIDTHS = [0.8, 0.95, 1.1, 1.25, 1.4, 1.6];

/** Loose pages in rows, as wide as shows them largest. */
function arrangeLoose(list: PageList, aspect: number, fixedColumns?: number): Arrangement {
  const area = list.pages.reduce((sum, { trim }) => sum + (trim.width + GUTTER) * (trim.height + LABELS), 0);
  const scale = ({ width, height }: Size) => Math.min(aspect / Math.max(1, width), 1 / Math.max(1, height));
  return WIDTHS.map((share) => looseRows(list, share * Math.sqrt(area * aspect), fixedColumns)).reduce(
    (best, next) => (scale(next) > scale(best) + 1e-9 ? next : best),
  );
}

/** Loose pages in rows; in a row as tall as its first page, smaller ones stand under each other. */
function looseRows(list: PageList, width: number, fixedColumns?: number): Arrangement {
  const slots = list.pages.map((page, index) => {
    const side = sideOf(index, list.book);
    const { left, right, head, foot } = bleedSides(page.bleed, side);
    return {
      side,
      left,
      head,
      width: page.trim.width + left + right,
      height: page.trim.height + head + foot + LABELS,
    };
  });
  const across = Math.max(width, ...slots.map((slot) => slot.width));
  const arranged: Arrangement = { tiles: [], width: 0, height: 0, columns: 1 };
  const row = { y: 0, height: 0, columns: 0 };
  const column = { x: 0, y: 0, width: 0 };
  slots.forEach((slot, index) => {
    const under = column.y > 0 && column.y + slot.height <= row.height + 1e-6;
    if (!under && row.columns) {
      const x = column.x + column.width + GUTTER;
      const full = fixedColumns ? row.columns >= fixedColumns : x + slot.width > across;
      if (full)
        Object.assign(row, { y: row.y + row.height + Math.max(0, row.height * 0.05), height: 0, columns: 0 });
      Object.assign(column, { x: full ? 0 : x, y: 0, width: 0 });
    }
    if (!under) row.columns++;
    arranged.tiles.push({
      index,
      side: slot.side,
      faced: false,
      x: column.x + slot.left,
      y: row.y + column.y + slot.head,
    });
    column.y += slot.height;
    column.width = Math.max(column.width, slot.width);
    row.height = Math.max(row.height, slot.height);
    arranged.columns = Math.max(arranged.columns, row.columns);
    arranged.width = Math.max(arranged.width, column.x + column.width);
    arranged.height = Math.max(arranged.height, row.y + row.height);
  });
  return arranged;
}

/** One file's pages on shelves. `boards` are the base lines that they stand on, from the shelf's left end. */
export interface Shelf extends Size {
  tiles: { index: number; x: number; y: number }[];
  boards: { y: number; width: number }[];
}

/** Sizes standing on base lines, like cards on a shelf, so that the odd one sticks out; shelves wrap at about `across` points. */
export function arrangeShelf(sizes: readonly Size[], across: number): Shelf {
  const shelf: Shelf = { tiles: [], boards: [], width: 0, height: 0 };
  const tallest = Math.max(1, ...sizes.map(({ height }) => height));
  const [apart, below] = [tallest * 0.06, Math.max(LABELS, tallest * 0.2)];
  let row: { index: number; x: number }[] = [];
  let x = 0;
  const close = () => {
    if (!row.length) return;
    const base = shelf.height + Math.max(...row.map(({ index }) => entryAt(sizes, index).height));
    for (const { index, x: at } of row)
      shelf.tiles.push({ index, x: at, y: base - entryAt(sizes, index).height });
    shelf.boards.push({ y: base, width: x - apart });
    shelf.width = Math.max(shelf.width, x - apart);
    shelf.height = base + below;
    [row, x] = [[], 0];
  };
  sizes.forEach((size, index) => {
    if (row.length && x + size.width > across) close();
    row.push({ index, x });
    x += size.width + apart;
  });
  close();
  return shelf;
}

/** The fixed point of what is cut off all round. */
export const CENTRE = { x: 'centre', y: 'centre' } as const;

/** Pages whose crop is tried: each stays where it lay, and its new trim lies within the old one. */
export function arrangeCropped(list: PageList, met: PageList, aspect: number): Arrangement {
  const kept = arrangeSpreads(met, aspect);
  const tiles = kept.tiles.flatMap((tile): Tile[] => {
    const is = list.pages[tile.index];
    if (!is) return [];
    const old = oldTrim(entryAt(met.pages, tile.index), is, CENTRE, tile.side);
    return [old ? { ...tile, faced: false, x: tile.x - old.x0, y: tile.y + old.y1 - is.trim.height } : tile];
  });
  return { ...kept, tiles };
}

/** Edges on the mat that a measured point sticks to: of trims, margins and columns. */
export function edgesToMeet(tiles: readonly Tile[], faces: readonly Page[]): { xs: number[]; ys: number[] } {
  const [xs, ys] = [new Set<number>(), new Set<number>()];
  for (const { index, x, y, side } of tiles) {
    const page = entryAt(faces, index);
    const trim = { x0: 0, y0: 0, x1: page.trim.width, y1: page.trim.height };
    for (const box of [trim, ...columnsOf(page, side)]) {
      xs.add(x + box.x0).add(x + box.x1);
      ys.add(y + page.trim.height - box.y0).add(y + page.trim.height - box.y1);
    }
  }
  return { xs: [...xs], ys: [...ys] };
}
