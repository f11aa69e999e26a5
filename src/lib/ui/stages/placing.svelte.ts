import type { Step, StepOf } from '../../core/docket/steps';
import { sizeBox, type Box } from '../../core/measure/box';
import { applyToBox } from '../../core/measure/matrix';
import { movedBy, placeLaid } from '../../core/numbers/placeLaid';
import type { Laid } from '../../core/model/laid';
import type { Matter } from '../../core/model/lines';
import { nearestPlace, offsetsAt, placeLines, type PlacedText } from '../../core/numbers/placeLines';
import { columnsOf } from '../../core/pages/margins';
import { objectsOf } from '../../core/pages/drawn';
import type { Page, Side } from '../../core/model/page';
import type { Bench } from '../bench.svelte';
import { snapBy, tidy } from '../mat/dragging';
import { follow } from '../mat/follow';

/** A line of text on a page that can be dragged; `away` if it was removed from this page and only its place shows. */
export interface Hold {
  key: string;
  matter: Matter;
  text: PlacedText;
  away: boolean;
}
type Lined = StepOf<'folio'> | StepOf<'running'> | StepOf<'set'>;

/** Lines draw in edges from this near, in pixels. */
const SNAP_PX = 5;

/** The lines of a page that show, or would if they had not been clicked away. */
export function holdsOf(page: Page, side: Side): Hold[] {
  return (page.matter ?? []).flatMap((matter, m) =>
    matter.hidden && matter.hidden !== 'away'
      ? []
      : placeLines(matter, page, side).texts.map((text, n): Hold => ({
          key: `${page.id} ${m} ${n}`,
          matter,
          text,
          away: matter.hidden === 'away',
        })),
  );
}

/** The step that put a line on its page, as the open form has it or as the docket does. */
const stepOf = (bench: Bench, { matter }: Hold): Lined | undefined =>
  (bench.draft.step?.id === matter.step
    ? bench.draft.step
    : bench.docket.steps.find(({ id }) => id === matter.step)) as Lined | undefined;

/** Takes lines off single pages and gives them back. */
export function clickAway(bench: Bench, hold: Hold, page: Page): void {
  const step = stepOf(bench, hold);
  if (!step) return;
  const away = hold.away ? step.away?.filter((id) => id !== page.id) : [...(step.away ?? []), page.id];
  const next = Object.assign({}, step, { away: away?.length ? away : undefined });
  if (
    bench.draft.form?.step?.id === step.id ||
    bench.draft.form?.begun?.id === step.id ||
    bench.draft.step?.id === step.id
  )
    bench.draft.step = next;
  else bench.changeStep(next);
}

/** Drags a line; the numbers of its step follow, and so does its twin on the other face. `k` is in pixels per point. */
export function dragLine(
  bench: Bench,
  hold: Hold,
  { page, side }: { page: Page; side: Side },
  press: PointerEvent,
  toMat: (event: PointerEvent) => { x: number; y: number },
  k: number,
): void {
  const start = toMat(press);
  const met = stepOf(bench, hold);
  if (!met) return;
  const { box } = hold.text;
  const edges = edgesToMeet(bench, page, side);
  follow(
    press,
    (event) => {
      if (bench.draft.step?.id !== met.id) {
        const known = bench.docket.steps.find(({ id }) => id === met.id);
        bench.open({ kind: met.kind, ...(known ? { step: known } : { begun: met }) });
      }
      const at = toMat(event);
      // The mat's y runs down, the page's up.
      const moved = { x: at.x - start.x, y: start.y - at.y };
      const to = shiftBox(box, moved.x, moved.y);
      const base = to.y0 + (hold.text.item.matrix[5] - box.y0);
      // Sides meet sides, and the middle meets the middle.
      const snapX =
        snapBy([(to.x0 + to.x1) / 2], edges.middles, SNAP_PX / k) ||
        snapBy([to.x0, to.x1], edges.xs, SNAP_PX / k);
      const snapY = snapBy([base, to.y1], edges.ys, SNAP_PX / k);
      bench.draft.step = movedTo(bench, met, hold, page, side, to.x0 + snapX, to.y0 + snapY, {
        x: !!snapX,
        y: !!snapY,
      });
    },
    (dragged) => {
      // A press alone opens the form.
      if (!dragged) {
        const known = bench.docket.steps.find(({ id }) => id === met.id);
        if (known && bench.draft.form?.step?.id !== met.id) bench.open({ kind: known.kind, step: known });
      }
    },
  );
}

/** A stamp on a page, as it can be taken hold of. */
export interface StampHold {
  key: string;
  laid: Laid;
  box: Box;
}

/** The stamps of a page; overlays lie where their trims meet and are not moved by hand. */
export const stampsOf = (page: Page, side: Side): StampHold[] =>
  (page.laid ?? []).flatMap((laid, n) =>
    laid.layer
      ? []
      : [{ key: `${page.id} ${n}`, laid, box: applyToBox(placeLaid(laid, page, side), sizeBox(laid.size)) }],
  );

/** Drags a stamp: its step's numbers follow, and so do its twins. */
export function dragStamp(
  bench: Bench,
  { laid }: StampHold,
  { page, side }: { page: Page; side: Side },
  press: PointerEvent,
  toMat: (event: PointerEvent) => { x: number; y: number },
): void {
  const start = toMat(press);
  const known = bench.docket.steps.find(({ id }) => id === laid.step);
  const met = bench.draft.step?.id === laid.step ? bench.draft.step : known;
  if (met?.kind !== 'stamp') return;
  const take = () => {
    if (bench.draft.step?.id !== met.id)
      bench.open({ kind: 'stamp', ...(known ? { step: known } : { begun: met }) });
  };
  follow(
    press,
    (event) => {
      take();
      const at = toMat(event);
      const placing = movedBy(laid, { x: at.x - start.x, y: start.y - at.y }, page, side);
      const [dx, dy] = [tidy(placing.dx, bench.unit), tidy(placing.dy, bench.unit)];
      bench.draft.step = { ...met, placing: { ...placing, dx, dy } };
    },
    (dragged) => dragged || take(),
  );
}

const shiftBox = (b: Box, x: number, y: number): Box => ({
  x0: b.x0 + x,
  x1: b.x1 + x,
  y0: b.y0 + y,
  y1: b.y1 + y,
});

/** The step with a line's box at a point of the page; a folio takes the place of the leaf that is nearest. */
function movedTo(
  bench: Bench,
  step: Lined,
  hold: Hold,
  page: Page,
  side: Side,
  x: number,
  y: number,
  snapped: { x: boolean; y: boolean },
): Step {
  const { box } = hold.text;
  const width = box.x1 - box.x0;
  const middle = { x: x + width / 2, y: y + (box.y1 - box.y0) / 2 };
  const free = step.kind !== 'running' && step.across !== 'left' && step.across !== 'right';
  const at = free ? nearestPlace(middle, page, side) : hold.text.at;
  const by = hold.matter.scale ?? 1;
  const set = { ...step, size: step.size * by };
  const offsets = offsetsAt({ x, y }, set, at, width, page, side);
  const round = (points: number, exact: boolean) => (exact ? points : tidy(points, bench.unit)) / by;
  return Object.assign({}, step, free ? at : {}, {
    x: round(offsets.x, snapped.x),
    y: round(offsets.y, snapped.y),
  });
}

/** The lines that what is dragged meets: margins, columns and objects on the page, and the middles of page and columns. */
function edgesToMeet(
  bench: Bench,
  page: Page,
  side: Side,
): { middles: number[]; xs: number[]; ys: number[] } {
  const columns = columnsOf(page, side);
  const boxes = [...columns, ...objectsOf(page, bench.surveys, true)];
  return {
    middles: [page.trim.width / 2, ...columns.map(({ x0, x1 }) => (x0 + x1) / 2)],
    xs: boxes.flatMap(({ x0, x1 }) => [x0, x1]),
    ys: boxes.flatMap(({ y0, y1 }) => [y0, y1]),
  };
}
