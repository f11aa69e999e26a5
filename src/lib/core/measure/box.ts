import { TOLERANCES } from './tolerances';

/** A rectangle in points: origin bottom left, y up. `x0 ≤ x1`, `y0 ≤ y1` when it comes from `box`. */
export interface Box {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

export interface Size {
  width: number;
  height: number;
}

/** Lengths at the four physical sides of a page or box, in points. */
export interface Sides {
  left: number;
  right: number;
  head: number;
  foot: number;
}

/** Makes a Box from any two opposite corners (ISO 32000-1, 7.9.5: corners may come in either order). */
export const box = (x0: number, y0: number, x1: number, y1: number): Box => ({
  x0: Math.min(x0, x1),
  y0: Math.min(y0, y1),
  x1: Math.max(x0, x1),
  y1: Math.max(y0, y1),
});

/** Whether two boxes are the same, number by number. */
export const isSameBox = (a: Box, b: Box): boolean =>
  a.x0 === b.x0 && a.y0 === b.y0 && a.x1 === b.x1 && a.y1 === b.y1;

/** The box of a size with its lower left corner at the origin. */
export const sizeBox = (size: Size): Box => ({ x0: 0, y0: 0, x1: size.width, y1: size.height });

export const widthOf = (b: Box): number => b.x1 - b.x0;
export const heightOf = (b: Box): number => b.y1 - b.y0;

/** The box grown outwards by each side's length; negative lengths shrink it. */
export const grow = (b: Box, by: Sides): Box => ({
  x0: b.x0 - by.left,
  y0: b.y0 - by.foot,
  x1: b.x1 + by.right,
  y1: b.y1 + by.head,
});

/** The box moved by (x, y). */
export const shift = (b: Box, x: number, y: number): Box => ({
  x0: b.x0 + x,
  y0: b.y0 + y,
  x1: b.x1 + x,
  y1: b.y1 + y,
});

/** What two boxes share; where they share nothing the result has no width or height. */
export const intersect = (a: Box, b: Box): Box => {
  const x0 = Math.max(a.x0, b.x0);
  const y0 = Math.max(a.y0, b.y0);
  return { x0, y0, x1: Math.max(x0, Math.min(a.x1, b.x1)), y1: Math.max(y0, Math.min(a.y1, b.y1)) };
};

/** The box as it lies in something of a width that is turned over about a vertical axis. */
export const mirrored = (b: Box, width: number): Box => ({ ...b, x0: width - b.x1, x1: width - b.x0 });

/** True when two boxes share more than a line. */
export const overlap = (a: Box, b: Box): boolean =>
  Math.min(a.x1, b.x1) - Math.max(a.x0, b.x0) > TOLERANCES.sum &&
  Math.min(a.y1, b.y1) - Math.max(a.y0, b.y0) > TOLERANCES.sum;

/** True when the box is more than a point or a line. */
export const hasArea = (b: Box): boolean => b.x1 > b.x0 && b.y1 > b.y0;

/** True when `inner` lies within `outer`, `slack` points over the edge allowed. */
export const contains = (outer: Box, inner: Box, slack = 0): boolean =>
  inner.x0 >= outer.x0 - slack &&
  inner.y0 >= outer.y0 - slack &&
  inner.x1 <= outer.x1 + slack &&
  inner.y1 <= outer.y1 + slack;

/** Bounds of all the boxes; the boxes must not be none. */
export const bounds = (boxes: readonly Box[]): Box =>
  boxes.reduce(
    (all, b) => ({
      x0: Math.min(all.x0, b.x0),
      y0: Math.min(all.y0, b.y0),
      x1: Math.max(all.x1, b.x1),
      y1: Math.max(all.y1, b.y1),
    }),
    { x0: Infinity, y0: Infinity, x1: -Infinity, y1: -Infinity },
  );
