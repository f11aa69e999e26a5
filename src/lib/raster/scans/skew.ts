import { entryAt } from '../../core/entries';

/** How text lies in a picture. */
export interface Skew {
  /** Degrees by which it lies clockwise, beyond quarter turns. */
  skew: number;
  /** Its lines run down the picture, not across. */
  down: boolean;
  /** How much sharper its lines stand out this way than the other, 1 for not at all. */
  sharper: number;
}

/** How far askew is looked for, in degrees; what lies further was laid so on purpose. */
const FARTHEST = 6;
const [COARSE, FINE] = [0.25, 0.02];
/** Dots that are looked at, and the fewest that tell anything. */
const [MOST, LEAST] = [40_000, 300];
/** Lines stand out where their profile is so many times sharper than that of dots strewn about. */
const STANDS_OUT = 1.35;

/**
 * How text lies, by the direction in which the lower edges of its letters fall into the fewest rows (projection profiles,
 * Postl 1986); undefined where there are no lines. `ink` is a byte a dot.
 */
export function skewOf(ink: Uint8Array, width: number, height: number): Skew | undefined {
  const found = [false, true].flatMap((down) => {
    const ends = lowerEnds(ink, width, height, down);
    if (ends.length < 2 * LEAST) return [];
    const best = sharpest(ends, -FARTHEST, FARTHEST, COARSE);
    const near = sharpest(ends, best.angle - COARSE, best.angle + COARSE, FINE);
    return [{ down, skew: near.angle, sharp: near.sharp }];
  });
  const [first, second] = found.sort((a, b) => b.sharp - a.sharp);
  if (!first || first.sharp < STANDS_OUT) return undefined;
  return { skew: first.skew, down: first.down, sharper: second ? first.sharp / second.sharp : Infinity };
}

/** Where ink ends below, or to the left where lines run down: pairs of how far along its line and across. */
function lowerEnds(ink: Uint8Array, width: number, height: number, down: boolean): Float32Array {
  const step = down ? -1 : width;
  const found: number[] = [];
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const at = y * width + x;
      if (ink[at] && !ink[at + step]) found.push(down ? y : x, down ? -x : y);
    }
  const every = Math.ceil(found.length / 2 / MOST);
  const kept = Float32Array.from({ length: 2 * Math.floor(found.length / 2 / every) }, (_, n) =>
    entryAt(found, 2 * every * (n >> 1) + (n & 1)),
  );
  return kept;
}

/** The angle at which points fall into the fewest rows, and how sharply. */
function sharpest(
  points: Float32Array,
  from: number,
  to: number,
  step: number,
): { angle: number; sharp: number } {
  const tried: { angle: number; sharp: number }[] = [];
  for (let angle = from; angle <= to + step / 2; angle += step)
    tried.push({ angle, sharp: sharpness(points, angle) });
  const at = tried.reduce((best, each, n) => (each.sharp > entryAt(tried, best).sharp ? n : best), 0);
  const [before, best, after] = [tried[at - 1], entryAt(tried, at), tried[at + 1]];
  if (!before || !after) return best;
  // The top of the parabola through three.
  const bend = before.sharp - 2 * best.sharp + after.sharp;
  const off = bend < 0 ? (0.5 * (before.sharp - after.sharp)) / bend : 0;
  return { angle: best.angle + off * step, sharp: best.sharp };
}

const rows = new Float64Array(1 << 15);
/** How unevenly points fall into rows that lie so far clockwise: 1 for points that are strewn about. */
function sharpness(points: Float32Array, angle: number): number {
  const turn = (angle * Math.PI) / 180;
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  rows.fill(0);
  const middle = rows.length / 2;
  let [least, most] = [rows.length, 0];
  const count = points.length / 2;
  for (let n = 0; n < points.length; n += 2) {
    const across = points[n + 1]! * cos - points[n]! * sin + middle;
    const row = Math.floor(across);
    if (row < 0 || row + 1 >= rows.length) continue;
    rows[row]! += 1 - (across - row);
    rows[row + 1]! += across - row;
    if (row < least) least = row;
    if (row > most) most = row;
  }
  let squares = 0;
  for (let row = least; row <= most + 1; row++) squares += rows[row]! * rows[row]!;
  return (squares * (most - least + 1)) / (count * count);
}
