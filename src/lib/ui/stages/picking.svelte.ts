import type { Box } from '../../core/measure/box';
import { facesOf, isReadLeftwards } from '../../core/pages/page';
import { entryAt } from '../../core/entries';
import type { Bench } from '../bench.svelte';
import type { Arrangement, Tile } from '../mat/arrange';

/** The bench, and its pages as they lie on the mat. */
interface Where {
  bench: Bench;
  arranged: () => Arrangement;
}
interface Keys {
  shiftKey: boolean;
  ctrlKey: boolean;
  metaKey: boolean;
}

/** Selects pages by pointing, by a marquee, and by the arrow keys. */
export class Picking {
  /** The page from which a pick with Shift reaches, and the one to which the last one reached. */
  private anchor = 0;
  private reach = 0;

  constructor(private readonly where: Where) {}

  private get list() {
    return this.where.bench.shown.list;
  }
  private get selected() {
    return this.where.bench.selected;
  }

  pick(index: number, event: Keys): void {
    if (event.shiftKey) return this.upTo(index);
    this.anchor = index;
    this.selected.chooseOne(entryAt(facesOf(this.list), index).id, event);
  }

  private upTo(index: number): void {
    const [from, to] = [Math.min(this.anchor, index), Math.max(this.anchor, index)];
    this.selected.choose(
      facesOf(this.list)
        .slice(from, to + 1)
        .map(({ id }) => id),
    );
  }

  marquee(box: Box, add: boolean): void {
    const faces = facesOf(this.list);
    const hit = tilesIn(this.where.arranged().tiles, box, (index) => entryAt(faces, index).trim);
    this.selected.choose([
      ...(add ? this.selected.ids : []),
      ...hit.map(({ index }) => entryAt(faces, index).id),
    ]);
  }

  /** Goes on to the page that an arrow key leads to, or reaches to it with Shift; its index, undefined for other keys. */
  walk({ key, shiftKey }: KeyboardEvent): number | undefined {
    const { list } = this;
    const last = list.pages.length - 1;
    const from = shiftKey ? this.reach : (this.selected.indexes[0] ?? -1);
    const later = isReadLeftwards(list.book) ? -1 : 1;
    const row = this.where.arranged().columns * (list.book.facing ? 2 : 1);
    const to = {
      ArrowLeft: from - later,
      ArrowRight: from + later,
      ArrowUp: from - row,
      ArrowDown: from + row,
      Home: 0,
      End: last,
    }[key];
    if (to === undefined) return undefined;
    const index = Math.min(last, Math.max(0, to));
    if (shiftKey) this.upTo(index);
    else {
      this.anchor = index;
      this.selected.choose([entryAt(list.pages, index).id]);
    }
    this.reach = index;
    return index;
  }
}

/** The tiles that a box on the mat meets. */
export const tilesIn = (
  tiles: readonly Tile[],
  box: Box,
  sizeOf: (index: number) => { width: number; height: number },
): Tile[] =>
  tiles.filter(({ index, x, y }) => {
    const { width, height } = sizeOf(index);
    return x < box.x1 && x + width > box.x0 && y < box.y1 && y + height > box.y0;
  });

/** The topmost tile at a place on the mat. */
export const tileAt = (
  tiles: readonly Tile[],
  { x, y }: { x: number; y: number },
  sizeOf: (index: number) => { width: number; height: number },
): Tile | undefined =>
  tiles.findLast((tile) => {
    const { width, height } = sizeOf(tile.index);
    return x >= tile.x && x <= tile.x + width && y >= tile.y && y <= tile.y + height;
  });
