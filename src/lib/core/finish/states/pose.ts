import { compose, invert, type Matrix } from '../../measure/matrix';
import type { Placed } from './placed';

/** From the front of a sheet, and the height above its lower face, to the mat and the height above that: three rows of x, y, z and a shift. */
export type Pose = readonly [Row, Row, Row];
type Row = readonly [number, number, number, number];

/** The pose that applies `first`, then `second`. */
const then = (first: Pose, second: Pose): Pose => {
  const row = ([a, b, c, d]: Row): Row => {
    const [p, q, r] = first;
    return [
      a * p[0] + b * q[0] + c * r[0],
      a * p[1] + b * q[1] + c * r[1],
      a * p[2] + b * q[2] + c * r[2],
      a * p[3] + b * q[3] + c * r[3] + d,
    ];
  };
  const [x, y, z] = second;
  return [row(x), row(y), row(z)];
};

/** Where a point of a sheet, so high above the middle of its paper, comes to lie. */
export const applyPose = (
  [x, y, z]: Pose,
  at: readonly [number, number, number],
): [number, number, number] => {
  const along = ([a, b, c, d]: Row) => a * at[0] + b * at[1] + c * at[2] + d;
  return [along(x), along(y), along(z)];
};

/** How a part lies: the middle of its paper at its height, turned over where its back looks up, tilted where it stands. */
export function poseOf({ matrix, up, from, thick, tilt }: Placed): Pose {
  const flat = flatPose(matrix, up === 'front' ? 1 : -1, from + thick / 2);
  return tilt
    ? then(flat, about(tilt.axis, tilt.at, from + thick / 2, (tilt.degrees * Math.PI) / 180))
    : flat;
}

const flatPose = ([a, b, c, d, e, f]: Matrix, up: 1 | -1, height: number): Pose => [
  [a, c, 0, e],
  [b, d, 0, f],
  [0, 0, up, height],
];

/** Turns about a line on the mat that is parallel to an axis, at a height: what lies beyond the line goes down. */
function about(axis: 'vertical' | 'horizontal', at: number, height: number, angle: number): Pose {
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  return axis === 'vertical'
    ? [
        [cos, 0, sin, at - cos * at - sin * height],
        [0, 1, 0, 0],
        [-sin, 0, cos, height + sin * at - cos * height],
      ]
    : [
        [1, 0, 0, 0],
        [0, cos, sin, at - cos * at - sin * height],
        [0, -sin, cos, height + sin * at - cos * height],
      ];
}

/**
 * A part on its way from where it lies to where it comes to lie, `t` from 0 to 1: it moves straight on, turns about the point that
 * stays, or is turned over about the line that stays, over what lies there or under it. Paper that moves together stays together.
 */
export function poseBetween(a: Placed, b: Placed, t: number, under = false): Pose {
  if (t <= 0) return poseOf(a);
  if (t >= 1) return poseOf(b);
  if (a.tilt || b.tilt) return tilting(a, b, t);
  const way = compose(invert(a.matrix), b.matrix);
  const middle = (part: Placed) => part.from + part.thick / 2;
  const [low, high] = [middle(a), middle(b)];
  if (a.up === b.up) return turning(poseOf(a), way, t, high - low);
  // Turned over: a reflection about a line, and a way along it.
  const [p, , , s, e, f] = way;
  const axis = p < s - 1 ? 'vertical' : p > s + 1 ? 'horizontal' : undefined;
  // About a slanting line paper is never folded: it is turned first, then turned over.
  if (!axis) return turnedThenOver(a, b, t, under);
  const [line, along] = axis === 'vertical' ? [e / 2, f] : [f / 2, e];
  const side = sideOf(a, axis, line) * (under ? 1 : -1);
  const over = about(axis, line, (low + high) / 2, side * t * Math.PI);
  const slide: Pose = [
    [1, 0, 0, axis === 'vertical' ? 0 : along * t],
    [0, 1, 0, axis === 'vertical' ? along * t : 0],
    [0, 0, 1, 0],
  ];
  return then(then(poseOf(a), over), slide);
}

/** On which side of a line a part lies: beyond it, or before it. */
function sideOf({ matrix, flat }: Placed, axis: 'vertical' | 'horizontal', line: number): 1 | -1 {
  const [x, y] = [(flat.x0 + flat.x1) / 2, (flat.y0 + flat.y1) / 2];
  const [a, b, c, d, e, f] = matrix;
  const at = axis === 'vertical' ? a * x + c * y + e : b * x + d * y + f;
  return at >= line ? 1 : -1;
}

/** Turned on the mat by some angle about the point that stays, or moved straight on, and lifted. */
function turning(from: Pose, [a, b, c, d, e, f]: Matrix, t: number, lift: number): Pose {
  const whole = Math.atan2(b, a);
  const turned = Math.abs(whole) > 1e-9;
  const [cos, sin] = [Math.cos(whole * t), Math.sin(whole * t)];
  // The point that stays: (1 - M) · p = (e, f).
  const det = (1 - a) * (1 - d) - b * c;
  const x = turned ? ((1 - d) * e + c * f) / det : 0;
  const y = turned ? (b * e + (1 - a) * f) / det : 0;
  return then(from, [
    [cos, -sin, 0, turned ? x - cos * x + sin * y : e * t],
    [sin, cos, 0, turned ? y - sin * x - cos * y : f * t],
    [0, 0, 1, lift * t],
  ]);
}

function turnedThenOver(a: Placed, b: Placed, t: number, under: boolean): Pose {
  const way = compose(invert(a.matrix), b.matrix);
  // Half of the way is the turn that makes the rest a plain turning over from side to side.
  const turn: Matrix = compose(way, [-1, 0, 0, 1, 0, 0]);
  const between: Placed = { ...a, matrix: compose(a.matrix, turn) };
  return t < 0.5 ? poseBetween(a, between, 2 * t) : poseBetween(between, b, 2 * t - 1, under);
}

/** Parts that stand, or stop standing: their angle changes, and their place moves straight on. */
function tilting(a: Placed, b: Placed, t: number): Pose {
  const mix = (from: number, to: number) => from + (to - from) * t;
  const [one, other] = [a.tilt ?? b.tilt, b.tilt ?? a.tilt];
  if (!one || !other || a.up !== b.up) return t < 0.5 ? poseOf(a) : poseOf(b);
  const matrix = a.matrix.map((each, n) => mix(each, b.matrix[n] ?? each)) as unknown as Matrix;
  return poseOf({
    ...b,
    matrix,
    from: mix(a.from, b.from),
    tilt: {
      axis: other.axis,
      at: mix(one.at, other.at),
      degrees: mix(a.tilt?.degrees ?? 0, b.tilt?.degrees ?? 0),
    },
  });
}
