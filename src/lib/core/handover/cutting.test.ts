import fc from 'fast-check';
import { expect, test } from 'vitest';
import { chordsOf, cutLength, cutPieces, type CutPath, type Point } from './cutting';

const path = (closed: boolean, ...points: Point[]): CutPath => ({ points, closed });
const box = (x: number, y: number, w: number, h: number): CutPath =>
  path(true, [x, y], [x + w, y], [x + w, y + h], [x, y + h]);
/** A circle of four curves, whose handles reach 4(√2 − 1)/3 of the radius. */
function circle(x: number, y: number, r: number): CutPath {
  const k = ((Math.SQRT2 - 1) * 4) / 3;
  const on = (a: number, b: number): Point => [x + a * r, y + b * r];
  const points: Point[] = [on(1, 0)];
  for (const [c, s] of [
    [1, 0],
    [0, 1],
    [-1, 0],
    [0, -1],
  ] as const)
    points.push(...chordsOf(points.at(-1)!, on(c - k * s, s + k * c), on(k * c - s, k * s + c), on(-s, c)));
  return path(true, ...points);
}

test('a tool goes round a box by its sides, and round a circle 2πr, as near as four curves come to one', () => {
  expect(cutLength([box(10, 20, 148, 210), path(false, [0, 0], [3, 4])])).toBe(2 * (148 + 210) + 5);
  // Four curves leave the circle by at most 0.027 % of its radius (common knowledge, from memory).
  expect(cutLength([circle(0, 0, 100)]) / (2 * Math.PI * 100)).toBeCloseTo(1, 3);
});

test('pieces are what cuts enclose: closed paths, lines that meet, cuts that overlap; what stays open is none', () => {
  expect(cutPieces([])).toBe(0);
  expect(cutPieces([path(false, [0, 0], [50, 0], [50, 50])])).toBe(0);
  expect(cutPieces([box(0, 0, 10, 10), box(30, 0, 10, 10), circle(100, 100, 40)])).toBe(3);
  // Side by side: the longer cut of one runs along the shorter of the other.
  expect(cutPieces([box(0, 0, 10, 30), box(10, 5, 10, 10)])).toBe(2);
  expect(cutPieces([circle(0, 0, 50), circle(60, 0, 50)])).toBe(3);
  expect(cutPieces([circle(0, 0, 50), circle(0, 0, 20)])).toBe(2);
  // A box of four strokes that end where the next begins, but for what a writer rounds away.
  const loose = [
    path(false, [0, 0], [40, 0]),
    path(false, [40.004, 0.003], [40, 40]),
    path(false, [40, 40], [0, 40]),
    path(false, [0, 39.996], [0, 0]),
  ];
  expect(cutPieces(loose)).toBe(1);
  expect(cutPieces(loose.slice(1))).toBe(0);
});

test('lines right through each other give the pieces of their grid, in whatever order and direction they are cut', () => {
  const places = fc.uniqueArray(fc.integer({ min: 1, max: 99 }), { minLength: 2, maxLength: 9 });
  fc.assert(
    fc.property(places, places, fc.infiniteStream(fc.boolean()), (across, up, turned) => {
      const lines = [
        ...across.map((x): [Point, Point] => [
          [x, -5],
          [x, 105],
        ]),
        ...up.map((y): [Point, Point] => [
          [-5, y],
          [105, y],
        ]),
      ].map(([from, to]) => (turned.next().value ? path(false, to, from) : path(false, from, to)));
      expect(cutPieces(lines)).toBe((across.length - 1) * (up.length - 1));
    }),
    { numRuns: 60 },
  );
});
