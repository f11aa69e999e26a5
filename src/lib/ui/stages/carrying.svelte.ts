import type { Step } from '../../core/docket/steps';
import type { Box } from '../../core/measure/box';
import { FOLD_IN } from '../../core/pages/panels';
import { faceAt, frontSide, isReadLeftwards, sideOf } from '../../core/pages/page';
import type { PageList } from '../../core/model/page';
import type { Bench } from '../bench.svelte';
import { newStepId } from '../newStepId';
import type { Arrangement, Tile } from '../mat/arrange';
import { follow } from '../mat/follow';
import { entryAt, isKeyOf } from '../../core/entries';

/** Within this many pixels of the mat's edge carrying scrolls, by this share of the distance. */
const [EDGE_PX, SCROLL] = [48, 0.35];

interface Ground {
  bench: Bench;
  arranged: () => Arrangement;
  toMat: (event: { clientX: number; clientY: number }) => { x: number; y: number };
  /** Moves the mat under the pointer, in pixels. */
  pan: (x: number, y: number) => void;
  /** Gives the keys to the mat. */
  focus: () => void;
  /** Where the mat is on the screen. */
  frame: () => DOMRect;
}

/** Where carried pages would land: between pages, or on a leaf as its fold-out. */
export interface Landing {
  as: 'move' | 'panel';
  at: 'before' | 'after';
  index: number;
  /** The mark that shows it, in points on the mat. */
  mark: Box;
}

/** Carrying selected pages over the mat to another place. */
export class Carrying {
  /** The pages carried, and the pointer on the mat. */
  carried = $state.raw<{ ids: readonly string[]; x: number; y: number } | undefined>();
  landing = $state.raw<Landing | undefined>();

  constructor(private readonly ground: Ground) {}

  /** Follows a press on a page. The page is selected at once; if it was one of several selected, only on release. */
  press(index: number, event: PointerEvent, pick: () => void): void {
    const { bench } = this.ground;
    const { id } = faceAt(bench.shown.list, index)!;
    const plain = !event.ctrlKey && !event.metaKey && !event.shiftKey;
    const among = plain && bench.selected.ids.has(id);
    if (!among) pick();
    // While a form is open, pages are shown as it would change them, so they cannot be carried. Panels stay on their leaves.
    if (bench.draft.form || bench.draft.format || !plain || index >= bench.shown.list.pages.length) {
      if (among) pick();
      return;
    }
    let last = event;
    let scrolling: ReturnType<typeof setInterval> | undefined;
    follow(
      event,
      (now) => {
        last = now;
        this.over(now);
        scrolling ??= setInterval(() => this.scroll(last), 16);
      },
      (moved) => {
        clearInterval(scrolling);
        if (!moved && among) pick();
        if (moved) {
          this.drop();
          if (!bench.draft.form) this.ground.focus();
        }
        this.carried = undefined;
        this.landing = undefined;
      },
    );
  }

  /** Moves the selected pages where an arrow key points, or to an end. Returns whether the key is one of these. */
  shiftBy(key: string): boolean {
    const leftwards = isReadLeftwards(this.ground.bench.shown.list.book);
    const to = {
      ArrowLeft: leftwards ? 'later' : 'earlier',
      ArrowRight: leftwards ? 'earlier' : 'later',
      Home: 'start',
      End: 'end',
    } as const;
    if (!isKeyOf(to, key)) return false;
    this.shift(to[key]);
    return true;
  }

  /** Moves the selected pages by one place, or to an end; the same pages moved again are still one step. */
  shift(to: 'earlier' | 'later' | 'start' | 'end'): void {
    const { bench } = this.ground;
    const { pages } = bench.base.list;
    const selected = bench.selected.indexes.filter((index) => index < pages.length);
    const [first, last] = [selected[0], selected.at(-1)];
    if (first === undefined || last === undefined || bench.draft.form) return;
    const where: Extract<Step, { kind: 'move' }>['where'] | undefined =
      to === 'start' || to === 'end'
        ? { at: to }
        : to === 'earlier'
          ? first > 0
            ? { at: 'before', pages: { ids: [entryAt(pages, first - 1).id] } }
            : undefined
          : last < pages.length - 1
            ? { at: 'after', pages: { ids: [entryAt(pages, last + 1).id] } }
            : undefined;
    if (!where) return;
    this.ground.focus();
    bench.acceptStep(
      moveStep(this.sameAsBefore(), { ids: selected.map((index) => entryAt(pages, index).id) }, where),
    );
  }

  /** The id of the last step, if it moved exactly the pages that are selected now. */
  private sameAsBefore(): string | undefined {
    const { bench } = this.ground;
    const last = bench.docket.steps.at(-1);
    if (last?.kind !== 'move' || last.off || typeof last.pages === 'string') return undefined;
    const ids = new Set(last.pages.ids);
    return ids.size === bench.selected.ids.size && [...bench.selected.ids].every((id) => ids.has(id))
      ? last.id
      : undefined;
  }

  private over(event: PointerEvent): void {
    const { bench, toMat } = this.ground;
    const { pages } = bench.shown.list;
    const ids = bench.selected.indexes
      .filter((index) => index < pages.length)
      .map((index) => entryAt(pages, index).id);
    const at = toMat(event);
    this.carried = { ids, ...at };
    this.landing = this.landingAt(at, event.shiftKey ? 'panel' : 'move');
  }

  private landingAt({ x, y }: { x: number; y: number }, as: Landing['as']): Landing | undefined {
    const { bench, arranged } = this.ground;
    const { list } = bench.shown;
    const nearest = nearestTile(arranged().tiles, list, x, y);
    if (!nearest) return undefined;
    const { tile, box } = nearest;
    const across = box.x1 - box.x0;
    if (as === 'panel') {
      if (bench.selected.ids.has(entryAt(list.pages, tile.index).id)) return undefined;
      const right = tile.side === 'right';
      const mark = right
        ? { ...box, x0: box.x1 - across * 0.12, x1: box.x1 + across * 0.3 }
        : { ...box, x0: box.x0 - across * 0.3, x1: box.x0 + across * 0.12 };
      return { as, at: 'after', index: tile.index, mark };
    }
    const upright = list.book.spine === 'head' && list.book.facing;
    const beyond = upright ? y > (box.y0 + box.y1) / 2 : x > (box.x0 + box.x1) / 2;
    const after = isReadLeftwards(list.book) ? !beyond : beyond;
    const edge = across * 0.03;
    const mark = upright
      ? { ...box, y0: (beyond ? box.y1 : box.y0) - edge, y1: (beyond ? box.y1 : box.y0) + edge }
      : { ...box, x0: (beyond ? box.x1 : box.x0) - edge, x1: (beyond ? box.x1 : box.x0) + edge };
    return { as, at: after ? 'after' : 'before', index: tile.index, mark };
  }

  private drop(): void {
    const { bench } = this.ground;
    const { carried, landing } = this;
    if (!carried?.ids.length || !landing) return;
    const { pages } = bench.base.list;
    const target = pages[landing.index];
    if (!target) return;
    // Panels that are selected too stay on their leaves.
    const all = carried.ids.length === bench.selected.ids.size;
    const selection = (all && bench.selected.selection) || { ids: [...carried.ids] };
    if (landing.as === 'panel') {
      const { book } = bench.base.list;
      const folds = sideOf(landing.index, book) === frontSide(book) ? 'front' : 'back';
      bench.open({
        kind: 'panel',
        begun: {
          id: newStepId(),
          kind: 'panel',
          pages: { ids: [target.id] },
          count: Math.ceil(carried.ids.length / 2),
          show: selection,
          allowance: FOLD_IN,
          folds,
        },
      });
      return;
    }
    const moving = new Set(carried.ids);
    // Dropped on one of themselves, they land beside the next page that stays.
    const next = pages
      .slice(landing.index + (landing.at === 'after' ? 1 : 0))
      .find(({ id }) => !moving.has(id));
    const rest = pages.filter(({ id }) => !moving.has(id)).map(({ id }) => id);
    const at = next ? rest.indexOf(next.id) : rest.length;
    const order = [...rest.slice(0, at), ...carried.ids, ...rest.slice(at)];
    if (pages.every(({ id }, index) => order[index] === id)) return;
    const where = next ? { at: 'before' as const, pages: { ids: [next.id] } } : { at: 'end' as const };
    bench.acceptStep(moveStep(undefined, selection, where));
  }

  private scroll({ clientX, clientY }: PointerEvent): void {
    const { left, right, top, bottom } = this.ground.frame();
    const by = (at: number, from: number, to: number) =>
      at < from + EDGE_PX
        ? (from + EDGE_PX - at) * SCROLL
        : at > to - EDGE_PX
          ? (to - EDGE_PX - at) * SCROLL
          : 0;
    const [x, y] = [by(clientX, left, right), by(clientY, top, bottom)];
    if (x || y) this.ground.pan(x, y);
  }
}

const moveStep = (
  id: string | undefined,
  pages: Extract<Step, { kind: 'move' }>['pages'],
  where: Extract<Step, { kind: 'move' }>['where'],
): Step => ({
  id: id ?? newStepId(),
  kind: 'move',
  pages,
  where,
});

function nearestTile(
  tiles: readonly Tile[],
  list: PageList,
  x: number,
  y: number,
): { tile: Tile; box: Box } | undefined {
  let best: { tile: Tile; box: Box; far: number } | undefined;
  for (const tile of tiles) {
    if (tile.index >= list.pages.length) continue;
    const { width, height } = entryAt(list.pages, tile.index).trim;
    const box = { x0: tile.x, y0: tile.y, x1: tile.x + width, y1: tile.y + height };
    const far = Math.hypot(Math.max(box.x0 - x, 0, x - box.x1), Math.max(box.y0 - y, 0, y - box.y1));
    if (!best || far < best.far) best = { tile, box, far };
  }
  return best;
}
