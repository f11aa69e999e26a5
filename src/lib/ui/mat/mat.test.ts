import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { mm, POINTS_PER, UNITS, type Unit } from '../../core/measure/unit';
import type { PageList } from '../../core/model/page';
import { A5, bookOf } from '../../../../tests/makers';
import { arrangeShelf, arrangeSpreads } from './arrange';
import { gridFor, multiples } from './grid';

const listOf = (count: number, first: 'left' | 'right' = 'right', odd?: number): PageList => ({
  book: bookOf(first),
  pages: Array.from({ length: count }, (_, i) => ({
    id: `p${i}`,
    trim: i === odd ? { width: mm(210), height: mm(297) } : A5,
    bleed: { by: 'edge', head: 9, foot: 9, spine: 9, fore: 9 },
  })),
});

describe('the grid is made of real lengths of the unit', () => {
  test.each<[Unit, number, number]>([
    ['mm', 0.5, 10],
    ['mm', 4, 1],
    ['mm', 0.05, 100],
    ['in', 0.9, 1 / 4],
    ['in', 0.4, 1],
    ['pt', 1, 12],
    ['pica', 2, 1],
  ])('%s at %d px a point: a fine line each %d', (unit, k, step) => {
    expect(gridFor(unit, k).fine).toBeCloseTo(step * POINTS_PER[unit], 9);
  });

  test('lines never crowd and heavy ones are multiples of fine ones, at any zoom', () => {
    fc.assert(
      fc.property(fc.constantFrom(...UNITS), fc.double({ min: 0.02, max: 40, noNaN: true }), (unit, k) => {
        const { fine, heavy, label } = gridFor(unit, k);
        expect(fine * k).toBeGreaterThanOrEqual(9);
        expect(label * k).toBeGreaterThanOrEqual(46);
        expect(Math.abs(heavy / fine - Math.round(heavy / fine))).toBeLessThan(1e-9);
      }),
    );
  });

  test('multiples lie within their bounds', () => {
    expect(multiples(10, -25, 31)).toEqual([-20, -10, 0, 10, 20, 30]);
    expect(multiples(10, 1, 9)).toEqual([]);
  });
});

/** Pixels a point, where so much is fitted to a mat. */
const drawnAt = (
  mat: { width: number; height: number },
  width: number,
  height: number,
  fitTo: string,
): number => (fitTo === 'width' ? mat.width / width : Math.min(mat.width / width, mat.height / height));

/** A mat in pixels. */
const MAT = { width: 770, height: 700 };

describe('spreads on the mat', () => {
  test('facing pages meet at their spine, on one line down a column', () => {
    const { tiles, columns } = arrangeSpreads(listOf(14), MAT);
    const spine = (index: number) => {
      const { side, x } = tiles[index]!;
      return side === 'right' ? x : x + A5.width;
    };
    expect(tiles).toHaveLength(14);
    expect(tiles[0]).toMatchObject({ side: 'right', faced: false });
    for (let i = 1; i + 1 < 14; i += 2) {
      expect(spine(i)).toBeCloseTo(spine(i + 1), 9);
      expect(tiles[i]!.y).toBe(tiles[i + 1]!.y);
      expect(tiles[i]!.faced && tiles[i + 1]!.faced).toBe(true);
    }
    expect(spine(2 * columns)).toBeCloseTo(spine(0), 9);
  });

  test('a book that is read from right to left runs so, row by row', () => {
    const list = { ...listOf(14, 'left'), book: bookOf('left', { spine: 'right' }) };
    const { columns, ...arranged } = arrangeSpreads(list, MAT);
    const tiles = [...arranged.tiles].sort((a, b) => a.index - b.index);
    const row = tiles.filter(({ y }) => y === tiles[0]!.y);
    expect(row.map(({ index }) => index)).toEqual(Array.from({ length: 2 * columns - 1 }, (_, n) => n));
    row.slice(1).forEach(({ x }, n) => expect(x).toBeLessThan(row[n]!.x));
    expect(tiles[row.length]!.x).toBeGreaterThan(row.at(-1)!.x);
  });

  test('no page covers another or what is written below it, whatever their number, side and sizes', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 120 }),
        fc.constantFrom('left' as const, 'right' as const),
        fc.integer({ min: 0, max: 119 }),
        fc.double({ min: 0.4, max: 3, noNaN: true }),
        (count, first, odd, aspect) => {
          const list = listOf(count, first, odd);
          const mat = { width: 600 * aspect, height: 600 };
          const { tiles, width, height, fitTo } = arrangeSpreads(list, mat);
          // However small they are drawn, twelve pixels of words stand below each.
          const label = 12 / drawnAt(mat, width, height, fitTo);
          const boxes = tiles.map(({ index, x, y }) => ({ x, y, ...list.pages[index]!.trim }));
          expect(tiles.map(({ index }) => index)).toEqual(list.pages.map((_, i) => i));
          const covered: unknown[] = [];
          for (const a of boxes) {
            expect(a.x).toBeGreaterThanOrEqual(0);
            expect(a.x + a.width).toBeLessThanOrEqual(width + 1e-6);
            expect(a.y + a.height).toBeLessThanOrEqual(height + 1e-6);
            for (const b of boxes) {
              const across = a.x < b.x + b.width - 1e-6 && b.x < a.x + a.width - 1e-6;
              if (a !== b && across && a.y < b.y + b.height + label && b.y < a.y + a.height)
                covered.push([a, b]);
            }
          }
          expect(covered).toEqual([]);
        },
      ),
    );
  });
});

test.each([16, 128, 500, 2000, 20_000])(
  '%d pages: words below each have their room as drawn, and no more',
  (count) => {
    const { tiles, width, height, fitTo } = arrangeSpreads(listOf(count), MAT);
    const k = drawnAt(MAT, width, height, fitTo);
    const rows = [...new Set(tiles.map(({ y }) => y))].sort((a, b) => a - b);
    const free = rows.slice(1).map((y, n) => (y - rows[n]! - A5.height) * k);
    for (const px of free) {
      expect(px).toBeGreaterThan(15);
      expect(px).toBeLessThan(60);
    }
    expect(A5.height * k).toBeGreaterThan(40);
  },
);

describe('pages on a shelf', () => {
  test('stand on one base line, so that the odd one sticks out', () => {
    const tall = { width: mm(210), height: mm(297) };
    const { tiles, boards } = arrangeShelf([A5, tall, A5], 10_000);
    const base = boards[0]!.y;
    expect(boards).toHaveLength(1);
    expect(tiles.map(({ index, y }) => y + [A5, tall, A5][index]!.height)).toEqual([base, base, base]);
    expect(tiles[1]!.y).toBeLessThan(tiles[0]!.y);
  });

  test('wrap where the shelf ends', () => {
    const { tiles, boards, width } = arrangeShelf(Array(7).fill(A5), A5.width * 3.5);
    expect(boards).toHaveLength(3);
    expect(width).toBeLessThanOrEqual(A5.width * 3.5);
    expect(new Set(tiles.slice(0, 3).map(({ y }) => y)).size).toBe(1);
    expect(arrangeShelf([], 100)).toEqual({ tiles: [], boards: [], width: 0, height: 0 });
  });
});
