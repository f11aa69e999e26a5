import { cutsOf } from '../../core/docket/steps/crop';
import type { Box } from '../../core/measure/box';
import { NUDGE } from '../../core/measure/unit';
import { oldTrim } from '../../core/pages/changes';
import { faceAt } from '../../core/pages/page';
import type { PageList } from '../../core/model/page';
import { pickedOf } from '../../core/select/selection';
import type { Bench } from '../bench.svelte';
import type { Arrangement, Tile } from '../mat/arrange';
import { cutBy, cutOf, moveCut, pull, tidy, type Grip } from '../mat/dragging';
import { follow } from '../mat/follow';
import { foundIn } from '../../core/entries';

const CENTRE = { x: 'centre', y: 'centre' } as const;
const GRIPS: readonly Grip[] = ([-1, 0, 1] as const).flatMap((x) =>
  ([-1, 0, 1] as const).flatMap((y) => (x || y ? [{ x, y }] : [])),
);

/** What stays in place while a trim is dragged: the spine and the head, as box edges and as a fixed point. */
const HELD = {
  right: { x: -1, y: -1, fixed: { x: 'spine', y: 'head' } },
  left: { x: 1, y: -1, fixed: { x: 'spine', y: 'head' } },
  lower: { x: -1, y: -1, fixed: { x: 'left', y: 'head' } },
  upper: { x: -1, y: 1, fixed: { x: 'left', y: 'foot' } },
} as const;

interface Point {
  x: number;
  y: number;
}

/** What pulling works on. */
interface Ground {
  bench: Bench;
  /** The pages as they lie. */
  arranged: () => Arrangement;
  toMat: (event: PointerEvent) => Point;
}

/** Dragging a crop or a trim size on the mat; it edits the same numbers as the form. */
export class Pulling {
  /** Something is being pulled just now. */
  isPulled = $state(false);
  private pulled = $state<number | undefined>();
  private readonly list = $derived.by(() => this.ground.bench.shown.list);

  constructor(private readonly ground: Ground) {}

  /** The step of the open form, if no later step has changed where its pages lie. */
  readonly draft = $derived.by(() => {
    const { draft, docket } = this.ground.bench;
    const { form, step } = draft;
    return step && form && (!form.step || form.step.id === docket.steps.at(-1)?.id) ? step : undefined;
  });
  readonly cropping = $derived(this.draft?.kind === 'crop' ? this.draft : undefined);
  /** The list that the draft meets. */
  readonly met: PageList = $derived.by(() => {
    const { draft, base, docket } = this.ground.bench;
    const { form } = draft;
    if (!form?.step) return base.list;
    return base.replay.after[docket.steps.length - 2] ?? { pages: [], book: base.list.book };
  });
  private readonly pages = $derived(
    this.draft && 'pages' in this.draft ? pickedOf(this.draft.pages, this.met) : [],
  );
  /** The page whose handles show. */
  private readonly active = $derived(
    this.pulled !== undefined && this.pages.includes(this.pulled) ? this.pulled : this.pages[0],
  );
  private readonly tile: Tile | undefined = $derived.by(() =>
    (this.cropping || this.draft?.kind === 'trim') && this.active !== undefined
      ? this.ground.arranged().tiles.find(({ index }) => index === this.active)
      : undefined,
  );
  /** Where the handles stand, in points on the mat, y down. */
  readonly box: Box | undefined = $derived.by(() => {
    if (!this.tile) return undefined;
    const { width, height } = faceAt(this.list, this.tile.index)!.trim;
    return { x0: this.tile.x, y0: this.tile.y, x1: this.tile.x + width, y1: this.tile.y + height };
  });
  readonly grips: readonly Grip[] = $derived.by(() => {
    if (this.cropping) return GRIPS;
    const still = this.tile && HELD[this.tile.side];
    return GRIPS.filter(({ x, y }) => still && x !== still.x && y !== still.y);
  });

  grip(held: Grip, event: PointerEvent): void {
    const { tile, box, cropping, draft } = this;
    if (!tile || !box) return;
    if (cropping) {
      this.follow(event, (at) => this.cropTo(tile.index, pull(box, held, this.ground.toMat(at))));
      return;
    }
    if (draft?.kind !== 'trim') return;
    const { bench, toMat } = this.ground;
    const { fixed } = HELD[tile.side];
    const start = toMat(event);
    const grown = (size: number, by: number) => Math.max(NUDGE[bench.unit], tidy(size + by, bench.unit));
    this.follow(event, (now) => {
      const at = toMat(now);
      bench.draft.step = {
        ...draft,
        width: held.x ? grown(draft.width, held.x * (at.x - start.x)) : draft.width,
        height: held.y ? grown(draft.height, at.y - start.y) : draft.height,
        fixed: { x: held.x ? fixed.x : draft.fixed.x, y: held.y ? fixed.y : draft.fixed.y },
      };
    });
  }

  private follow(press: PointerEvent, move: (event: PointerEvent) => void): void {
    this.isPulled = true;
    follow(press, move, () => (this.isPulled = false));
  }

  /** Begins to draw a crop when a page is pressed while a crop form is open. Returns false if the press means something else. */
  press(index: number, event: PointerEvent): boolean {
    if (!this.cropping || !this.pages.includes(index)) return false;
    const start = this.ground.toMat(event);
    this.pulled = index;
    this.follow(event, (now) => {
      const at = this.ground.toMat(now);
      this.cropTo(index, {
        x0: Math.min(start.x, at.x),
        x1: Math.max(start.x, at.x),
        y0: Math.min(start.y, at.y),
        y1: Math.max(start.y, at.y),
      });
    });
    return true;
  }

  /** Moves the crop by arrow keys. Returns false if there is no crop. */
  nudge(event: KeyboardEvent): boolean {
    const { bench } = this.ground;
    const by = NUDGE[bench.unit] * (event.shiftKey ? 10 : 1);
    const [x, y] = { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, -by], ArrowDown: [0, by] }[
      event.key
    ] ?? [0, 0];
    const { cropping, active, tile } = this;
    if (!cropping || active === undefined || !tile || (!x && !y)) return false;
    try {
      const sides = cutsOf(cropping.cut, this.pages, this.met, bench.surveys).get(active);
      if (sides)
        bench.draft.step = { ...cropping, cut: cutOf(moveCut(sides, x!, y!), cropping.cut.by, tile.side) };
    } catch {
      // What is wrong with the crop is said in its form.
    }
    return true;
  }

  private cropTo(index: number, box: Box): void {
    if (!this.cropping) return;
    const corner = this.cornerBefore(index);
    const own = {
      x0: box.x0 - corner.x,
      x1: box.x1 - corner.x,
      y0: box.y0 - corner.y,
      y1: box.y1 - corner.y,
    };
    const sides = cutBy(own, faceAt(this.met, index)!.trim, this.ground.bench.unit);
    this.ground.bench.draft.step = { ...this.cropping, cut: cutOf(sides, this.cropping.cut.by, corner.side) };
  }

  /** Where a page lay before the crop: its trim's upper left corner on the mat. */
  private cornerBefore(index: number) {
    const tile = foundIn(this.ground.arranged().tiles, (each) => each.index === index);
    const page = faceAt(this.list, index)!;
    const old = oldTrim(faceAt(this.met, index)!, page, CENTRE, tile.side);
    return {
      side: tile.side,
      x: tile.x + (old?.x0 ?? 0),
      y: tile.y - (old ? old.y1 - page.trim.height : 0),
    };
  }
}
