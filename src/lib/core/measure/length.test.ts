import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { formatFigure, formatLength, formatSize } from './formatLength';
import { LengthError, parseLength } from './parseLength';
import { inch, mm, UNITS, type Unit } from './unit';

// 1 in = 25.4 mm, 1 pica = 12 pt, 1 pt = 1/72 in: ISO 32000-1, 8.3.2.3 and the inch of 1959.
describe('parseLength', () => {
  test.each<[string, Unit, number]>([
    ['210', 'mm', mm(210)],
    ['210-30', 'mm', mm(180)],
    ['8.5in', 'mm', 612],
    ['8,5 in', 'mm', 612],
    ['3 mm', 'in', mm(3)],
    ['297/3', 'mm', mm(99)],
    ['1/8in', 'mm', 9],
    ['1/8"', 'mm', 9],
    ['3 5/8 in', 'mm', 261],
    ['3 5/8', 'in', 261],
    ['12p6', 'mm', 150],
    ['12p', 'mm', 144],
    ['2 pica', 'mm', 24],
    ['210 - 1in', 'mm', mm(210) - 72],
    ['(210+2*3)/2', 'mm', mm(108)],
    ['(1+1) in', 'mm', 144],
    ['297mm / 2', 'in', mm(148.5)],
    ['8.5in / 1in', 'pt', 8.5],
    ['-3', 'mm', mm(-3)],
    ['210 × 2', 'mm', mm(420)],
    ['1080px@300', 'mm', inch(3.6)],
    ['1080 px @ 300 / 2', 'mm', inch(1.8)],
    ['210-(-5)', 'mm', mm(215)],
    ['1000', 'mm', mm(1000)],
    ['0,125in', 'mm', 9],
    ['1.000', 'mm', mm(1)],
  ])('%s in %s', (text, unit, points) => expect(parseLength(text, unit)).toBeCloseTo(points, 9));

  test.each([
    ['', 'empty', 0],
    ['  ', 'empty', 0],
    ['210 furlong', 'unknown-unit', 4],
    ['210 mm x', 'unexpected', 7],
    ['3 mm * 2 mm', 'area', 6],
    ['5/0', 'divide-by-zero', 2],
    ['3 5/0 in', 'divide-by-zero', 4],
    ['(3', 'unexpected', 2],
    ['3 mm mm', 'unexpected', 5],
    ['A5', 'unexpected', 0],
    [`1${'0'.repeat(400)}`, 'not-finite', 401],
    // A thousand to some, one to others.
    ['1,000', 'thousands', 0],
    ['210 + 12,500', 'thousands', 6],
    ['--5', 'two-signs', 1],
    ['210--5', 'two-signs', 4],
    ['5+-2', 'two-signs', 2],
    ['1080px', 'pixels', 4],
    ['1080px@0', 'divide-by-zero', 4],
  ])('refuses %j: %s at %i', (text, code, at) => {
    const error = (() => {
      try {
        return parseLength(text, 'mm');
      } catch (thrown) {
        return thrown;
      }
    })();
    expect(error).toBeInstanceOf(LengthError);
    expect(error).toMatchObject({ code, at });
  });
});

describe('formatLength', () => {
  test.each<[number, Unit, string]>([
    [mm(148), 'mm', '148 mm'],
    [mm(85.6), 'mm', '85.6 mm'],
    [inch(3.625), 'in', '3 5/8 in'],
    [inch(-0.125), 'in', '-1/8 in'],
    [mm(210), 'in', '8.2677 in'],
    [inch(3.625), 'in-decimal', '3.625 in'],
    [150, 'pica', '12p6'],
    [-0.0001, 'mm', '0 mm'],
  ])('%d pt in %s is %s', (points, unit, text) => expect(formatLength(points, unit)).toBe(text));

  test('a size has its unit once', () => expect(formatSize(mm(148), mm(210), 'mm')).toBe('148 × 210 mm'));

  test('pixels are lengths where a resolution is stated, else no unit at all', () => {
    expect(parseLength('1080px / 2', 'mm', 300)).toBeCloseTo(inch(1.8), 9);
    expect(() => parseLength('1080 px', 'mm')).toThrow(LengthError);
  });

  test('what is shown reads back as what was meant', () => {
    const half = { mm: 0.0005, cm: 0.00005, in: 0.00005, 'in-decimal': 0.00005, pt: 0.005, pica: 0.005 / 12 };
    fc.assert(
      fc.property(
        fc.double({ min: -14_400, max: 14_400, noNaN: true }),
        fc.constantFrom(...UNITS),
        (points, unit) => {
          const perUnit = { mm: mm(1), cm: mm(10), in: 72, 'in-decimal': 72, pt: 1, pica: 12 }[unit];
          expect(Math.abs(parseLength(formatFigure(points, unit), unit) - points)).toBeLessThanOrEqual(
            half[unit] * perUnit * 1.01,
          );
        },
      ),
    );
  });
});
