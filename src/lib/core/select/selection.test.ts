import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { mm } from '../measure/unit';
import { bookOf } from '../../../../tests/makers';
import type { Page, PageList } from '../model/page';
import { describeIndexes, resolveSelection, SelectionError } from './selection';

const A4 = { width: mm(210), height: mm(297) };
const A5 = { width: mm(148), height: mm(210) };
const noBleed = { by: 'edge', head: 0, foot: 0, spine: 0, fore: 0 } as const;
const art = {
  source: 'x',
  index: 0,
  place: [1, 0, 0, 1, 0, 0],
  reach: { x0: 0, y0: 0, x1: 1, y1: 1 },
} as const;
/** Ten pages: 3 is blank, 4 is A4, 7 and 8 carry the labels iv and v. */
const page = (n: number): Page => ({
  id: `p${n}`,
  trim: n === 4 ? A4 : A5,
  bleed: noBleed,
  ...(n === 3 ? {} : { art }),
  ...(n === 7 ? { label: 'iv' } : n === 8 ? { label: 'v' } : {}),
});
const list: PageList = { pages: Array.from({ length: 10 }, (_, i) => page(i + 1)), book: bookOf('right') };
const picks = (text: string, within = list) => resolveSelection(text, within).map((index) => index + 1);

describe('a typed selection', () => {
  test.each([
    ['3', [3]],
    ['5-7', [5, 6, 7]],
    ['9-', [9, 10]],
    ['last', [10]],
    ['last-1', [9]],
    ['last - 2-last', [8, 9, 10]],
    ['3, 5, 9-12, last', undefined],
    ['all', [1, 2, 3, 4, 5, 6, 7, 8, 9, 10]],
    ['even not 2', [4, 6, 8, 10]],
    ['odd', [1, 3, 5, 7, 9]],
    ['left', [2, 4, 6, 8, 10]],
    ['not 1, last', [2, 3, 4, 5, 6, 7, 8, 9]],
    ['1-4 not 2, 3', [1, 4]],
    ['blank', [3]],
    ['"iv"', [7]],
    ['"iv"-"v"', [7, 8]],
    ['“iv”–“v”', [7, 8]],
    ['size:A4', [4]],
    ['size: A5 not 1-8', [9, 10]],
    ['3,3,2', [2, 3]],
  ])('%s', (text, expected) => {
    if (expected) expect(picks(text)).toEqual(expected);
    else expect(() => picks(text)).toThrow(SelectionError);
  });

  test.each([
    ['', 'empty', 0],
    ['3 5', 'unexpected', 2],
    ['3, x', 'unexpected', 3],
    ['11', 'no-such-page', 0],
    ['2, 0', 'no-such-page', 3],
    ['last-10', 'no-such-page', 0],
    ['7-3', 'backwards', 0],
    ['"xx"', 'no-such-label', 0],
    ['1, size:A99', 'no-such-size', 3],
    ['1 not all', 'none-match', 0],
    ['1,,2', 'unexpected', 2],
  ])('%j is refused: %s at %i', (text, code, at) => {
    try {
      picks(text);
      expect.unreachable();
    } catch (error) {
      expect(error).toMatchObject({ code, at });
    }
  });

  test('left and right follow the leaf', () =>
    expect(picks('right', { ...list, book: bookOf('left') })).toEqual([2, 4, 6, 8, 10]));
});

test('selected pages are followed by id, and it is said when all are gone', () => {
  expect(resolveSelection({ ids: ['p9', 'gone', 'p2'] }, list)).toEqual([1, 8]);
  expect(() => resolveSelection({ ids: ['gone'] }, list)).toThrow(
    expect.objectContaining({ code: 'pages-gone' }),
  );
});

test('indexes written out read back as the same indexes', () => {
  fc.assert(
    fc.property(fc.uniqueArray(fc.integer({ min: 0, max: 9 }), { minLength: 1 }), (indexes) => {
      expect(resolveSelection(describeIndexes(indexes), list)).toEqual([...indexes].sort((a, b) => a - b));
    }),
  );
});
