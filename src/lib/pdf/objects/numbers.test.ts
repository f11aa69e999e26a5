import fc from 'fast-check';
import { expect, test } from 'vitest';
import { boxNumbers, clipTo, concat, figure } from './numbers';

test('numbers are written as PDF takes them: no exponent, near enough to what was meant (ISO 32000-1, 7.3.3)', () => {
  expect([0, -0, 1e-9, 0.1 + 0.2, -12.5, 14400, 1 / 3].map(figure)).toEqual([
    '0',
    '0',
    '0',
    '0.3',
    '-12.5',
    '14400',
    '0.33333',
  ]);
  fc.assert(
    fc.property(fc.double({ min: -14_400, max: 14_400, noNaN: true }), (value) => {
      expect(figure(value)).toMatch(/^-?\d+(\.\d{1,5})?$/);
      expect(Math.abs(Number(figure(value)) - value)).toBeLessThanOrEqual(5e-6);
      expect(concat([value, 1e-7, 0, 1, 0, 0])).toMatch(/^-?\d+(\.\d{1,6})? 0 0 1 0 0 cm$/);
    }),
  );
});

test('boxes and clips', () => {
  const box = { x0: -8.5, y0: 0, x1: 100, y1: 50.123456 };
  expect(boxNumbers(box)).toEqual([-8.5, 0, 100, 50.12346]);
  expect(clipTo(box)).toBe('-8.5 0 108.5 50.12346 re W n');
});
