import type { Box } from '../../core/measure/box';
import type { Level } from '../../core/checks/finding';
import type { Page } from '../../core/model/page';
import type { Tile } from './arrange';
import { keysOf } from '../../core/entries';

/** A page as it lies on the mat. */
export interface TileView extends Tile {
  page: Page;
  /** What it is called: its position, or a panel's address. */
  name: string;
  label: string;
  selected: boolean;
  /** The step that is pointed at acted on it. */
  hinted?: boolean;
  /** It is only there when what is tried is accepted. */
  isNew: boolean;
  flag: Level | undefined;
  /** Where the trim was before what is being tried, in page space. */
  ghost: Box | undefined;
}

/** How many tiles change in one frame: with more, the bench would stand still while they do. */
const AT_ONCE = 24;

/** Lets tiles onto the mat, and changes to those that are there, a few a frame. */
export class Gate {
  private turn = $state(0);
  private there: ReadonlyMap<string, TileView> = new Map();
  private waiting = false;

  /** Of the tiles in sight, those that are on the mat by now, as far as they have changed. */
  admit(inSight: readonly TileView[]): readonly TileView[] {
    void this.turn;
    let room = AT_ONCE;
    let all = true;
    const next = new Map<string, TileView>();
    for (const view of inSight) {
      const old = this.there.get(view.page.id);
      if (old && alike(old, view)) next.set(view.page.id, old);
      else if (room-- > 0) next.set(view.page.id, view);
      else {
        all = false;
        if (old) next.set(view.page.id, old);
      }
    }
    this.there = next;
    if (!all && !this.waiting) {
      this.waiting = true;
      requestAnimationFrame(() => {
        this.waiting = false;
        this.turn++;
      });
    }
    return [...next.values()];
  }
}

const alike = ({ ghost: a, ...one }: TileView, { ghost: b, ...other }: TileView): boolean =>
  keysOf(one).every((key) => one[key] === other[key]) &&
  (a === b || (!!a && !!b && a.x0 === b.x0 && a.y0 === b.y0 && a.x1 === b.x1 && a.y1 === b.y1));
