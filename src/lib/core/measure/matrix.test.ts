import fc from 'fast-check';
import { expect, test } from 'vitest';
import { box, heightOf, widthOf } from './box';
import { applyToBox, applyToPoint, compose, invert, turnMatrix, turnOf, type Matrix } from './matrix';

const number = fc.double({ min: -500, max: 500, noNaN: true });

test('a matrix and its inverse leave a point where it was', () => {
  const entry = fc.double({ min: 0.1, max: 3, noNaN: true });
  fc.assert(
    fc.property(entry, entry, number, number, number, number, (sx, sy, e, f, x, y) => {
      const matrix: Matrix = [sx, 0.05, -0.05, sy, e, f];
      const back = applyToPoint(compose(matrix, invert(matrix)), x, y);
      expect(back.x).toBeCloseTo(x, 6);
      expect(back.y).toBeCloseTo(y, 6);
    }),
  );
  expect(() => invert([0, 0, 0, 0, 1, 1])).toThrow(RangeError);
});

test.each([0, 90, 180, 270] as const)(
  'a box turned by %i lands at the origin, its head clockwise',
  (turn) => {
    const from = box(40, 30, 10, 80);
    const turned = applyToBox(turnMatrix(from, turn), from);
    const size = turn % 180 ? [heightOf(from), widthOf(from)] : [widthOf(from), heightOf(from)];
    expect(turned).toEqual({ x0: 0, y0: 0, x1: size[0], y1: size[1] });
    // ISO 32000-1, table 30: Rotate turns clockwise, so the head's middle goes to the right edge at 90.
    const head = applyToPoint(turnMatrix(from, turn), 25, 80);
    expect(head).toEqual(
      { 0: { x: 15, y: 50 }, 90: { x: 50, y: 15 }, 180: { x: 15, y: 0 }, 270: { x: 0, y: 15 } }[turn],
    );
  },
);

test('angles are normalised, negatives too; others are refused', () => {
  expect([-90, 450, 0, -360, 720, 180].map(turnOf)).toEqual([270, 90, 0, 0, 0, 180]);
  expect([45, 1, NaN].map(turnOf)).toEqual([undefined, undefined, undefined]);
});
