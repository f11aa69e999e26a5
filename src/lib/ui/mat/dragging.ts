import type { Cut } from '../../core/docket/steps/crop';
import type { Box, Sides, Size } from '../../core/measure/box';
import { NUDGE, type Unit } from '../../core/measure/unit';
import { edgesOf } from '../../core/pages/page';
import type { Side } from '../../core/model/page';

/** Which edges of a box a handle moves; y down. */
export interface Grip {
  x: -1 | 0 | 1;
  y: -1 | 0 | 1;
}

/** Lengths that are pulled fall on whole tenths of what an arrow key moves: 0.1 mm, 1/160 in. */
export const tidy = (points: number, unit: Unit): number =>
  Math.round(points / (NUDGE[unit] / 10)) * (NUDGE[unit] / 10);

/** The box with the edges that a grip holds moved to a point; y down. It never turns inside out. */
export function pull(box: Box, grip: Grip, to: { x: number; y: number }): Box {
  const { x0, x1, y0, y1 } = box;
  return {
    x0: grip.x < 0 ? Math.min(to.x, x1) : x0,
    x1: grip.x > 0 ? Math.max(to.x, x0) : x1,
    y0: grip.y < 0 ? Math.min(to.y, y1) : y0,
    y1: grip.y > 0 ? Math.max(to.y, y0) : y1,
  };
}

/** What a box (y down, from the trim's upper left corner) leaves off a trim at its four sides. */
export function cutBy(box: Box, trim: Size, unit: Unit): Sides {
  const off = (points: number) => Math.max(0, tidy(points, unit));
  return {
    left: off(box.x0),
    right: off(trim.width - box.x1),
    head: off(box.y0),
    foot: off(trim.height - box.y1),
  };
}

/** The sides moved by (x, y), y down, within the trim: what leaves one side joins the other. */
export function moveCut({ left, right, head, foot }: Sides, x: number, y: number): Sides {
  const across = Math.max(-left, Math.min(x, right));
  const down = Math.max(-head, Math.min(y, foot));
  return { left: left + across, right: right - across, head: head + down, foot: foot - down };
}

/** A crop that cuts these sides off a page that lies on `side`, mirrored on others where the crop was. */
export const cutOf = (sides: Sides, by: Cut['by'], side: Side): Cut =>
  by === 'edge' ? { by, ...edgesOf(sides, side) } : { by: 'side', ...sides };

/** The nearest of `lines` to one of `points`, as how far the points must move to meet it; 0 if none is within `reach`. */
export function snapBy(points: readonly number[], lines: readonly number[], reach: number): number {
  let best = Infinity;
  for (const point of points)
    for (const line of lines) if (Math.abs(line - point) < Math.abs(best)) best = line - point;
  return Math.abs(best) <= reach ? best : 0;
}
