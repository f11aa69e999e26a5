import fc from 'fast-check';
import { expect, test } from 'vitest';
import { leafOf, spreadsOf } from './leaves';
import { labelsOf } from '../numbers/labels';
import { backSide, boundAt, edgesOf, frontSide, opposite, sideOf, sidesOf, spineAt } from './page';
import { SIDES, SPINES, type Page, type PageList } from '../model/page';
import { bookOf } from '../../../../tests/makers';

// By practice: right-hand pages odd, left-hand even, when the first page lies on the right.
test('sides follow the leaf', () => {
  expect([0, 1, 2, 3].map((i) => sideOf(i, bookOf('right')))).toEqual(['right', 'left', 'right', 'left']);
  expect([0, 1, 2, 3].map((i) => sideOf(i, bookOf('left')))).toEqual(['left', 'right', 'left', 'right']);
});

test('spreads as a reader meets them', () => {
  expect(spreadsOf(6, bookOf('right'))).toEqual([
    { right: 0 },
    { left: 1, right: 2 },
    { left: 3, right: 4 },
    { left: 5 },
  ]);
  expect(spreadsOf(3, bookOf('left'))).toEqual([{ left: 0, right: 1 }, { left: 2 }]);
  expect(spreadsOf(0, bookOf('right'))).toEqual([]);
});

test('every page is on one spread, on its side; a leaf has a front and a back, and its back is seen next', () => {
  const books = SPINES.flatMap((spine) =>
    [frontSide({ spine }), backSide({ spine })].map((first) => bookOf(first, { spine })),
  );
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 400 }), fc.constantFrom(...books), (count, book) => {
      const back = backSide(book);
      const seen = spreadsOf(count, book).flatMap((spread) => {
        for (const side of SIDES)
          if (spread[side] !== undefined) expect(sideOf(spread[side], book)).toBe(side);
        return [spread[back], spread[opposite(back)]].filter((index) => index !== undefined);
      });
      expect(seen).toEqual(Array.from({ length: count }, (_, i) => i));
      for (let i = 0; i + 1 < count; i++) {
        const [here, next] = [leafOf(i, book), leafOf(i + 1, book)];
        expect(here.leaf === next.leaf).toBe(here.face === 'front');
      }
    }),
  );
});

test('a book bound elsewhere begins with the same face of a leaf, and its edges come back from its sides', () => {
  const book = bookOf('right');
  expect(SPINES.map((spine) => boundAt(book, spine).first)).toEqual(['right', 'left', 'lower']);
  expect(boundAt(boundAt(bookOf('left'), 'head'), 'right').first).toBe('right');
  const edges = { head: 1, foot: 2, spine: 3, fore: 4 };
  for (const side of SIDES) {
    expect(edgesOf(sidesOf(edges, side), side)).toEqual(edges);
    expect(sidesOf(edges, side)[spineAt(side)]).toBe(edges.spine);
  }
});

test('loose pages are each the front of a leaf of their own', () => {
  const loose = bookOf('left', { facing: false });
  expect(spreadsOf(3, loose)).toEqual([{ right: 0 }, { right: 1 }, { right: 2 }]);
  expect(leafOf(2, loose)).toEqual({ leaf: 3, face: 'front' });
  expect([0, 1, 2].map((i) => sideOf(i, loose))).toEqual(['right', 'right', 'right']);
  expect(frontSide(bookOf('left', { spine: 'right' }))).toBe('left');
});

test('labels that a file brings are kept and others carry none; without any, positions count', () => {
  const listOf = (...labels: (string | undefined)[]): PageList => ({
    book: bookOf('right'),
    pages: labels.map((label, n): Page => ({
      id: String(n),
      trim: { width: 1, height: 1 },
      bleed: { by: 'side', head: 0, foot: 0, left: 0, right: 0 },
      ...(label === undefined ? {} : { label }),
    })),
  });
  expect(labelsOf(listOf('i', undefined, '1'))).toEqual(['i', '', '1']);
  expect(labelsOf(listOf(undefined, undefined))).toEqual(['1', '2']);
});
