import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { foldSheet, FoldError, type Fold } from './fold';
import { impose, type Imposed } from './impose';

const LEFT_UNDER = (at: number): Fold => ({ axis: 'vertical', at, moves: 'before', goes: 'under' });
const TOP_UNDER = (at: number): Fold => ({ axis: 'horizontal', at, moves: 'after', goes: 'under' });

/** The pages of one face, row by row from the head, as that face is seen; heads down in brackets. */
const rows = (pages: readonly Imposed[], face: 'front' | 'back', columns: number, rowCount: number) =>
  Array.from({ length: rowCount }, (_, r) =>
    Array.from({ length: columns }, (_, c) => {
      const column = face === 'front' ? c : columns - 1 - c;
      const cell = pages.find((p) => p.face === face && p.row === rowCount - 1 - r && p.column === column)!;
      return cell.turn === 180 ? `(${cell.page})` : `${cell.page}`;
    }).join(' '),
  );

// Layouts by practice.
describe('folding a blank sheet, numbering it and unfolding it', () => {
  test('one fold: 4·1 and 2·3', () => {
    const pages = impose(foldSheet({ columns: [1, 1], rows: [1] }, [LEFT_UNDER(1)]));
    expect([rows(pages, 'front', 2, 1), rows(pages, 'back', 2, 1)]).toEqual([['4 1'], ['2 3']]);
  });

  test('8 pages, right angle', () => {
    const pages = impose(foldSheet({ columns: [1, 1], rows: [1, 1] }, [TOP_UNDER(1), LEFT_UNDER(1)]));
    expect(rows(pages, 'front', 2, 2)).toEqual(['(5) (4)', '8 1']);
    expect(rows(pages, 'back', 2, 2)).toEqual(['(3) (6)', '2 7']);
  });

  test('16 pages, right angle: left half under, top half under, left half under', () => {
    const pages = impose(
      foldSheet({ columns: [1, 1, 1, 1], rows: [1, 1] }, [LEFT_UNDER(2), TOP_UNDER(1), LEFT_UNDER(3)]),
    );
    expect(rows(pages, 'front', 4, 2)).toEqual(['(5) (12) (9) (8)', '4 13 16 1']);
    expect(rows(pages, 'back', 4, 2)).toEqual(['(7) (10) (11) (6)', '2 15 14 3']);
  });
});

test('panels of unequal widths fold where their borders are, and nowhere else', () => {
  const sheet = { columns: [97, 100, 100], rows: [210] };
  const stack = foldSheet(sheet, [
    { axis: 'vertical', at: 97, moves: 'before', goes: 'over' },
    { axis: 'vertical', at: 197, moves: 'after', goes: 'over' },
  ]);
  expect(stack.map(({ column, up }) => `${column} ${up}`)).toEqual(['2 back', '0 back', '1 front']);
  expect(stack[1]!.outline).toMatchObject({ x0: 97, x1: 194 });
  expect(() => foldSheet(sheet, [LEFT_UNDER(100)])).toThrow(
    expect.objectContaining({ code: 'through-panel', fold: 0 }),
  );
  expect(() => foldSheet(sheet, [LEFT_UNDER(297)])).toThrow(FoldError);
  expect(() => foldSheet(sheet, [LEFT_UNDER(0)])).toThrow(expect.objectContaining({ code: 'nothing-moves' }));
});

test('whatever halving folds are made, every page lies once on the sheet and the two faces of a leaf back up', () => {
  const fold = fc.record({
    axis: fc.constantFrom('vertical' as const, 'horizontal' as const),
    moves: fc.constantFrom('before' as const, 'after' as const),
    goes: fc.constantFrom('over' as const, 'under' as const),
  });
  fc.assert(
    fc.property(fc.array(fold, { minLength: 1, maxLength: 6 }), (choices) => {
      const size = {
        vertical: 2 ** choices.filter((c) => c.axis === 'vertical').length,
        horizontal: 2 ** choices.filter((c) => c.axis === 'horizontal').length,
      };
      const low = { vertical: 0, horizontal: 0 };
      const extent = { ...size };
      const folds = choices.map((choice): Fold => {
        const { axis } = choice;
        extent[axis] /= 2;
        const at = low[axis] + extent[axis];
        if (choice.moves === 'before') low[axis] = at;
        return { ...choice, at };
      });
      const pages = impose(
        foldSheet({ columns: Array(size.vertical).fill(1), rows: Array(size.horizontal).fill(1) }, folds),
      );
      const count = 2 * size.vertical * size.horizontal;
      expect(pages.map((p) => p.page)).toEqual(Array.from({ length: count }, (_, i) => i + 1));
      expect(new Set(pages.map((p) => `${p.face} ${p.column} ${p.row}`)).size).toBe(count);
      for (let i = 0; i < count; i += 2)
        expect([pages[i]!.column, pages[i]!.row]).toEqual([pages[i + 1]!.column, pages[i + 1]!.row]);
    }),
  );
});
