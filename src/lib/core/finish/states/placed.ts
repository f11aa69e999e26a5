import { contains, overlap, widthOf, hasArea, type Box } from '../../measure/box';
import { mm } from '../../measure/unit';
import { outlineOf, type Layer } from '../line/paper';

/*
 * Paper as it lies on the mat between one operation and the next: x to the right, y away from who looks at it, z up. Lengths in
 * points.
 */

/** A sheet of unknown paper is drawn this thick: an uncoated sheet of 80 g/m², by common practice. */
export const DRAWN_CALIPER = mm(0.1);

/** A part that stands, or hangs, from a line of its own: so many degrees about it, those beyond the line downwards. */
export interface Tilt {
  axis: 'vertical' | 'horizontal';
  at: number;
  degrees: number;
}

/** A part of a sheet, with its thickness, at its height. */
export interface Placed extends Layer {
  /** Height of its lower face above the mat. */
  from: number;
  thick: number;
  tilt?: Tilt;
  /** A knife takes it off. */
  waste?: true;
}

/** Paper lying one on another, the first on top: each part comes down to what lies under it. */
export function stacked(layers: readonly Layer[], caliperOf: (sheet: number) => number): Placed[] {
  const lying: { outline: Box; top: number }[] = [];
  return layers
    .toReversed()
    .map((layer): Placed => {
      const outline = outlineOf(layer);
      const from = lying.reduce(
        (height, below) => (below.top > height && overlap(outline, below.outline) ? below.top : height),
        0,
      );
      const thick = caliperOf(layer.sheet);
      lying.push({ outline, top: from + thick });
      return { ...layer, from, thick };
    })
    .reverse();
}

/** How high parts reach. */
export const topOf = (parts: readonly Placed[]): number =>
  parts.reduce((height, { from, thick }) => Math.max(height, from + thick), 0);

/** A thinner strip is none. */
const LEAST = 0.01;

/** What is left of a box outside boxes that lie in it and not on one another, in rows from the foot. */
export function restOf(whole: Box, pieces: readonly Box[]): Box[] {
  const levels = cutsAt([whole.y0, whole.y1, ...pieces.flatMap(({ y0, y1 }) => [y0, y1])]);
  return levels.slice(1).flatMap((y1, n) => {
    const row = { ...whole, y0: levels[n] ?? whole.y0, y1 };
    const across = pieces.filter((piece) => overlap(piece, row)).sort((a, b) => a.x0 - b.x0);
    const gaps: Box[] = [];
    let from = whole.x0;
    for (const piece of across) {
      gaps.push({ ...row, x0: from, x1: piece.x0 });
      from = Math.max(from, piece.x1);
    }
    return [...gaps, { ...row, x0: from }].filter((gap) => hasArea(gap) && widthOf(gap) > LEAST);
  });
}
const cutsAt = (places: readonly number[]): number[] =>
  [...places].sort((a, b) => a - b).filter((at, n, all) => n === 0 || at - (all[n - 1] ?? at) > LEAST);

/** Whose faces can be seen. */
export interface InSight {
  above: boolean;
  below: boolean;
}
/** What lies under paper that reaches over all its edges but by this much is taken as hidden. */
const COVERED = mm(3);
/** Which faces of parts that lie flat can be seen from above and from below, by the parts' indexes. */
export function facesInSight(parts: readonly Placed[]): Map<number, InSight> {
  const seen = new Map<number, InSight>();
  const order = parts
    .map((part, index) => ({ part, index, outline: outlineOf(part) }))
    .filter(({ part }) => !part.waste)
    .sort((a, b) => b.part.from - a.part.from);
  const look = (side: 'above' | 'below', all: typeof order): void => {
    const met: Box[] = [];
    for (const { part, index, outline } of all) {
      if (!part.tilt && met.some((other) => contains(other, outline, COVERED))) continue;
      if (!part.tilt) met.push(outline);
      seen.set(index, { above: false, below: false, ...seen.get(index), [side]: true });
    }
  };
  look('above', order);
  look('below', order.toReversed());
  return seen;
}
