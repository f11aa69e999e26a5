import { isLong, type FitTo } from './camera.svelte';
import type { Size } from '../../core/measure/box';
import { spreadsOf } from '../../core/pages/leaves';
import { pagesOfLeaf, panelsOf, type Panel } from '../../core/pages/panels';
import { bleedSides, edgesOf, frontSide, isReadLeftwards, sideOf } from '../../core/pages/page';
import { SIDES, type Book, type Page, type PageList, type Side } from '../../core/model/page';
import { entryAt, keysOf } from '../../core/entries';
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
  /** All of it is in sight, or as much as is large enough to be told from another. */
  fitTo: FitTo;
}

/** Most spreads in a row; the least room between spreads and below them for their labels, in points. */
const [MOST_COLUMNS, GUTTER, LABELS] = [8, 34, 46];
/** The same two in pixels, however small pages are drawn: what stands below a page has to be read. */
const [GUTTER_PX, LABELS_PX] = [9, 20];

/** Pages that would be lower than this, in pixels, are fitted to the width of the mat alone, and the rest is scrolled to. */
const LOW_PX = 90;
const lowestOf = ({ pages }: PageList): number => Math.min(...pages.map(({ trim }) => trim.height));
/** How many pixels a point has where so much is fitted to the mat. */
const scaleOn = (mat: Size, { width, height }: Size, to: FitTo): number =>
  to === 'width'
    ? mat.width / Math.max(1, width)
    : Math.min(mat.width / Math.max(1, width), mat.height / Math.max(1, height));
function fitFor(size: Size, mat: Size, lowest: number): FitTo {
  const whole = scaleOn(mat, size, 'all');
  return lowest * whole < LOW_PX && isLong(whole, scaleOn(mat, size, 'width')) ? 'width' : 'all';
}

/** How far something reaches from the place that it stands on, in points. */
interface Reach {
  left: number;
  right: number;
  up: number;
  down: number;
}

/**
 * Spreads in rows as a reader meets them (those of a book bound at the right from right to left), each on the same spine line as those above it; a larger page makes room for itself
 * in its own row and column. `mat` is as large as the mat on the screen, in pixels. `fixedColumns` keeps as many in a row as there were.
 */
export function arrangeSpreads(
  list: PageList,
  mat: Size,
  fixedColumns?: number,
  folded: ReadonlySet<string> = new Set(),
): Arrangement {
  if (!list.book.facing) return arrangeLoose(list, mat, fixedColumns);
  const spreads = spreadsOf(list.pages.length, list.book);
  if (!spreads.length) return { tiles: [], width: 0, height: 0, columns: 1, fitTo: 'all' };
  const hanging = hangingOn(list);
  const isOpen = ({ front }: Panel) => !folded.has(front.panel!.on);
  const reaches = spreads.map((spread) =>
    reachOf(spread, list, (index) => (hanging.get(index) ?? []).filter(isOpen)),
  );
  const most = Math.min(MOST_COLUMNS, spreads.length);
  const tried = fixedColumns ? [fixedColumns] : Array.from({ length: most }, (_, n) => n + 1);
  const rows = tried
    .map((columns) => rowsFor(reaches, columns, mat, lowestOf(list), list.book))
    .reduce((best, next) => (next.k > best.k * (1 + 1e-9) ? next : best));
  const tiles = spreads.flatMap((spread, n): Tile[] => {
    const { x, y } = rows.at(n);
    const sides = SIDES.filter((side) => spread[side] !== undefined);
    return sides.flatMap((side): Tile[] => {
      const index = spread[side]!;
      const { width, height } = entryAt(list.pages, index).trim;
      const at = {
        right: { x, y },
        left: { x: x - width, y },
        // The upper page has its label between itself and the spine.
        upper: { x, y: y - height },
        lower: { x, y: y + rows.words },
      }[side];
      const page: Tile = { index, side, faced: sides.length === 2, ...at };
      return [page, ...panelTiles(hanging.get(index) ?? [], page, width, isOpen, list)];
    });
  });
  const { columns, width, height, fitTo } = rows;
  return { tiles, columns, width, height, fitTo };
}

/** How far a spread with its bleed and its open panels reaches: from the head of its spine; from the left end of one that lies across. */
function reachOf(
  spread: Readonly<Partial<Record<Side, number>>>,
  list: PageList,
  openAt: (index: number) => readonly Panel[],
): Reach {
  const reach: Reach = { left: 0, right: 0, up: 0, down: 0 };
  for (const side of SIDES) {
    const index = spread[side];
    if (index === undefined) continue;
    const page = entryAt(list.pages, index);
    const { fore, head, foot } = edgesOf(bleedSides(page.bleed, side), side);
    const out = page.trim.width + sum(openAt(index).map(({ front }) => front.trim.width)) + fore;
    const along = page.trim.height + fore;
    const far = { right: { right: out }, left: { left: out }, upper: { up: along }, lower: { down: along } }[
      side
    ];
    const turned = side === 'upper' || side === 'lower';
    const all = turned
      ? { left: foot, right: page.trim.width + head, ...far }
      : { up: head, down: page.trim.height + foot, ...far };
    for (const way of keysOf(reach)) reach[way] = Math.max(reach[way], all[way as keyof typeof all] ?? 0);
  }
  return reach;
}

/** Rows of so many spreads: how large they are drawn on the mat, and where the place of each is. */
function rowsFor(reaches: readonly Reach[], columns: number, mat: Size, lowest: number, book: Book) {
  const upright = book.spine === 'head';
  const leftwards = isReadLeftwards(book);
  const rowOf = (n: number) => Math.floor(n / columns);
  const columnOf = (n: number) => (leftwards ? columns - 1 - (n % columns) : n % columns);
  const [across, down]: [Reach[], Reach[]] = [[], []];
  reaches.forEach((reach, n) => {
    across[columnOf(n)] = widest(across[columnOf(n)], reach);
    down[rowOf(n)] = widest(down[rowOf(n)], reach);
  });
  const wide = sum(Object.values(across).map(({ left, right }) => left + right));
  const high = sum(down.map(({ up, down }) => up + down));
  const labels = down.length * (upright ? 2 : 1);
  let [gutter, words] = [GUTTER, LABELS];
  const size = (): Size => ({ width: wide + (columns - 1) * gutter, height: high + labels * words });
  const fitTo = fitFor(size(), mat, lowest);
  // What has a size in pixels depends on the scale, and the scale on that.
  for (let n = 0; n < 4; n++) {
    const k = scaleOn(mat, size(), fitTo);
    [gutter, words] = [Math.max(GUTTER, GUTTER_PX / k), Math.max(LABELS, LABELS_PX / k)];
  }
  const xs = placesOf(
    Array.from({ length: columns }, (_, n) => across[n]),
    ({ left, right }) => [left, right + gutter],
  );
  const ys = placesOf(down, ({ up, down }) => [up, down + words * (upright ? 2 : 1)]);
  return {
    ...size(),
    k: scaleOn(mat, size(), 'all'),
    fitTo,
    words,
    columns,
    at: (n: number) => ({ x: entryAt(xs, columnOf(n)), y: entryAt(ys, rowOf(n)) }),
  };
}

const widest = (a: Reach | undefined, b: Reach): Reach =>
  a
    ? {
        left: Math.max(a.left, b.left),
        right: Math.max(a.right, b.right),
        up: Math.max(a.up, b.up),
        down: Math.max(a.down, b.down),
      }
    : b;

/** Places one after another, of which each needs so much before it and behind it. */
function placesOf(parts: readonly (Reach | undefined)[], room: (part: Reach) => [number, number]): number[] {
  let end = 0;
  return parts.map((part) => {
    const [before, behind] = part ? room(part) : [0, 0];
    const at = end + before;
    end = at + behind;
    return at;
  });
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
function arrangeLoose(list: PageList, mat: Size, fixedColumns?: number): Arrangement {
  const aspect = mat.width / Math.max(1, mat.height);
  const area = list.pages.reduce((sum, { trim }) => sum + (trim.width + GUTTER) * (trim.height + LABELS), 0);
  const scale = (size: Size) => scaleOn(mat, size, 'all');
  const largest = (words: number) =>
    WIDTHS.map((share) => looseRows(list, share * Math.sqrt(area * aspect), words, fixedColumns)).reduce(
      (best, next) => (scale(next) > scale(best) * (1 + 1e-9) ? next : best),
    );
  const plain = largest(LABELS);
  const rows = LABELS * scale(plain) >= LABELS_PX ? plain : largest(LABELS_PX / scale(plain));
  return { ...rows, fitTo: fitFor(rows, mat, lowestOf(list)) };
}

/** Loose pages in rows; in a row as tall as its first page, smaller ones stand under each other. */
function looseRows(list: PageList, width: number, words: number, fixedColumns?: number): Arrangement {
  const slots = list.pages.map((page, index) => {
    const side = sideOf(index, list.book);
    const { left, right, head, foot } = bleedSides(page.bleed, side);
    return {
      side,
      left,
      head,
      width: page.trim.width + left + right,
      height: page.trim.height + head + foot + words,
    };
  });
  const across = Math.max(width, ...slots.map((slot) => slot.width));
  const arranged: Arrangement = { tiles: [], width: 0, height: 0, columns: 1, fitTo: 'all' };
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
export function arrangeCropped(list: PageList, met: PageList, mat: Size): Arrangement {
  const kept = arrangeSpreads(met, mat);
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
