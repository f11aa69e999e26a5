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

/** Lets what is to lie on the mat onto it, and changes to what is there, a few a frame. */
export class Gate<View> {
  private turn = $state(0);
  private there: ReadonlyMap<string, View> = new Map();
  private waiting = false;

  /** What each goes by, and whether it looks as it did. */
  constructor(
    private readonly keyOf: (view: View) => string,
    private readonly alike: (one: View, other: View) => boolean,
  ) {}

  /** Of those in sight, the ones that are on the mat by now, as far as they have changed. */
  admit(inSight: readonly View[]): readonly View[] {
    void this.turn;
    let room = AT_ONCE;
    let all = true;
    const next = new Map<string, View>();
    for (const view of inSight) {
      const key = this.keyOf(view);
      const old = this.there.get(key);
      if (old && this.alike(old, view)) next.set(key, old);
      else if (room-- > 0) next.set(key, view);
      else {
        all = false;
        if (old) next.set(key, old);
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

/** Whether two pages lie on the mat alike. */
export const alikeTiles = ({ ghost: a, ...one }: TileView, { ghost: b, ...other }: TileView): boolean =>
  keysOf(one).every((key) => one[key] === other[key]) &&
  (a === b || (!!a && !!b && a.x0 === b.x0 && a.y0 === b.y0 && a.x1 === b.x1 && a.y1 === b.y1));
