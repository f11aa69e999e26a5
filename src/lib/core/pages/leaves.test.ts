import fc from 'fast-check';
import { expect, test } from 'vitest';
import { leafOf, spreadsOf } from './leaves';
import { labelsOf } from './labels';
import { frontSide, sideOf, type Page } from './page';
import { bookOf } from '../../../../tests/makers';

const side = fc.constantFrom('left' as const, 'right' as const);

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
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 400 }), side, side, (count, first, spine) => {
      const book = bookOf(first, { spine });
      const spreads = spreadsOf(count, book);
      const order = ({ left, right }: (typeof spreads)[number]) =>
        spine === 'left' ? [left, right] : [right, left];
      const seen = spreads.flatMap((spread) => order(spread).filter((index) => index !== undefined));
      expect(seen).toEqual(Array.from({ length: count }, (_, i) => i));
      for (const { left, right } of spreads) {
        if (left !== undefined) expect(sideOf(left, book)).toBe('left');
        if (right !== undefined) expect(sideOf(right, book)).toBe('right');
      }
      for (let i = 0; i + 1 < count; i++) {
        const [here, next] = [leafOf(i, book), leafOf(i + 1, book)];
        expect(here.leaf === next.leaf).toBe(here.face === 'front');
      }
    }),
  );
});

test('loose pages are each the front of a leaf of their own', () => {
  const loose = bookOf('left', { facing: false });
  expect(spreadsOf(3, loose)).toEqual([{ right: 0 }, { right: 1 }, { right: 2 }]);
  expect(leafOf(2, loose)).toEqual({ leaf: 3, face: 'front' });
  expect([0, 1, 2].map((i) => sideOf(i, loose))).toEqual(['right', 'right', 'right']);
  expect(frontSide(bookOf('left', { spine: 'right' }))).toBe('left');
});

test('labels that a file brings are kept and others carry none; without any, positions count', () => {
  const page = (label?: string): Page => ({
    id: 'x',
    trim: { width: 1, height: 1 },
    bleed: { by: 'side', head: 0, foot: 0, left: 0, right: 0 },
    ...(label === undefined ? {} : { label }),
  });
  expect(labelsOf([page('i'), page(), page('1')])).toEqual(['i', '', '1']);
  expect(labelsOf([page(), page()])).toEqual(['1', '2']);
});
