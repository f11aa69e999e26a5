import { box, type Box } from './box';
import { entryAt } from '../entries';

/** An affine matrix [a b c d e f] as PDF writes it: x' = a·x + c·y + e, y' = b·x + d·y + f (ISO 32000-1, 8.3.3). */
export type Matrix = readonly [number, number, number, number, number, number];

export const IDENTITY: Matrix = [1, 0, 0, 1, 0, 0];
export const translate = (x: number, y: number): Matrix => [1, 0, 0, 1, x, y];
export const scale = (x: number, y = x): Matrix => [x, 0, 0, y, 0, 0];

/** Six numbers as a matrix. Throws if there are fewer. */
export const matrixOf = (six: ArrayLike<number>): Matrix => [
  entryAt(six, 0),
  entryAt(six, 1),
  entryAt(six, 2),
  entryAt(six, 3),
  entryAt(six, 4),
  entryAt(six, 5),
];

/** The matrix that applies the first, then the second. */
export const compose = (p: Matrix, q: Matrix): Matrix => [
  p[0] * q[0] + p[1] * q[2],
  p[0] * q[1] + p[1] * q[3],
  p[2] * q[0] + p[3] * q[2],
  p[2] * q[1] + p[3] * q[3],
  p[4] * q[0] + p[5] * q[2] + q[4],
  p[4] * q[1] + p[5] * q[3] + q[5],
];

/** The inverse; throws RangeError when the matrix flattens everything to a line. */
export const invert = (m: Matrix): Matrix => {
  const a = m[0];
  const b = m[1];
  const c = m[2];
  const d = m[3];
  const e = m[4];
  const f = m[5];
  const det = a * d - b * c;
  if (det === 0) throw new RangeError('matrix has no inverse');
  return [d / det, -b / det, -c / det, a / det, (c * f - d * e) / det, (b * e - a * f) / det];
};

export const applyToPoint = (m: Matrix, x: number, y: number): { x: number; y: number } => ({
  x: m[0] * x + m[2] * y + m[4],
  y: m[1] * x + m[3] * y + m[5],
});

/** Whether two matrices are the same, number by number. */
export function isSameMatrix(p: Matrix, q: Matrix): boolean {
  if (p === q) return true;
  for (let n = 0; n < p.length; n++) if (p[n] !== q[n]) return false;
  return true;
}

/** Bounds of the box after the matrix. */
export const applyToBox = (matrix: Matrix, { x0, y0, x1, y1 }: Box): Box => {
  const p = applyToPoint(matrix, x0, y0);
  const q = applyToPoint(matrix, x1, y0);
  const r = applyToPoint(matrix, x0, y1);
  const s = applyToPoint(matrix, x1, y1);
  return box(
    Math.min(p.x, q.x, r.x, s.x),
    Math.min(p.y, q.y, r.y, s.y),
    Math.max(p.x, q.x, r.x, s.x),
    Math.max(p.y, q.y, r.y, s.y),
  );
};

/** Turns back, anticlockwise, by degrees about a point; y runs upwards. */
export function turnBack(degrees: number, x: number, y: number): Matrix {
  const angle = (degrees * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  return [cos, sin, -sin, cos, x - x * cos + y * sin, y - x * sin - y * cos];
}

/** Quarter turns clockwise, as `/Rotate` counts them. */
export type Turn = 0 | 90 | 180 | 270;

/** Normalises any multiple of 90 degrees, negatives too, to 0, 90, 180 or 270; undefined for other angles. */
export const turnOf = (degrees: number): Turn | undefined => {
  const turn = ((degrees % 360) + 360) % 360;
  return turn === 0 || turn === 90 || turn === 180 || turn === 270 ? turn : undefined;
};

/** The quarter turn of any multiple of 90 degrees. Throws RangeError for other angles. */
export const quarters = (degrees: number): Turn => {
  const turn = turnOf(degrees);
  if (turn === undefined) throw new RangeError(`${degrees}° is no quarter turn`);
  return turn;
};

/** Turns over about a line that is parallel to an axis, at a distance from the left or the foot. */
export const turnOver = (axis: 'vertical' | 'horizontal', at: number): Matrix =>
  axis === 'vertical' ? [-1, 0, 0, 1, 2 * at, 0] : [1, 0, 0, -1, 0, 2 * at];

/** Turns a box clockwise by `turn` and moves it so that its new lower left corner is the origin. */
export const turnMatrix = (b: Box, turn: Turn): Matrix => {
  if (turn === 0) return translate(-b.x0, -b.y0);
  if (turn === 90) return [0, -1, 1, 0, -b.y0, b.x1];
  if (turn === 180) return [-1, 0, 0, -1, b.x1, b.y1];
  return [0, 1, -1, 0, b.y1, -b.x0];
};

/** The clockwise quarter turn in a matrix that turns by quarters, scales and moves. */
export function turnIn([a, b]: Matrix): Turn {
  if (Math.abs(a) >= Math.abs(b)) return a >= 0 ? 0 : 180;
  return b < 0 ? 90 : 270;
}
