import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Box } from '../measure/box';
import { applyToPoint } from '../measure/matrix';
import { mm } from '../measure/unit';
import { creasesOf, hingesOf, layersAt, mostLayers } from './creases';
import {
  edgesOf,
  FoldError,
  foldSheet,
  foldStates,
  idOf,
  type Axis,
  type BorderFold,
  type FlatSheet,
  type Fold,
  type Folded,
} from './fold';
import { impose, type Imposed } from './impose';
import {
  patternOf,
  signaturePattern,
  turnedPattern,
  withFoldAt,
  withPanels,
  type OwnPattern,
  type Pattern,
  type PatternChoice,
} from './patterns';
import { panelWidths } from './widths';

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

const under = (border: number, moves: BorderFold['moves'], more: Partial<BorderFold> = {}): BorderFold => ({
  axis: 'vertical',
  border,
  moves,
  goes: 'under',
  ...more,
});

describe('what paper cannot do is refused', () => {
  const sheet = { columns: [97, 100, 100], rows: [210] };
  test.each<[string, FlatSheet, (Fold | BorderFold)[], Partial<FoldError>]>([
    ['a fold through a panel', sheet, [LEFT_UNDER(50)], { code: 'through-panel', fold: 0, panel: 1 }],
    ['a fold at the edge', sheet, [LEFT_UNDER(297)], { code: 'nothing-moves' }],
    ['a fold beyond the sheet', sheet, [LEFT_UNDER(500)], { code: 'nothing-moves' }],
    [
      'a panel that is folded in and wider than its place',
      { columns: [103, 100, 94], rows: [210] },
      [under(1, 'before'), under(2, 'before')],
      { code: 'too-wide', fold: 1, by: 3, panel: 1 },
    ],
    ['a border that is no border', sheet, [under(3, 'before')], { code: 'no-border', fold: 0 }],
    [
      'a border that is folded already',
      sheet,
      [under(1, 'before'), under(1, 'after')],
      { code: 'no-border', fold: 1 },
    ],
    [
      // Two halves lie on one another, closed at the left: the upper one alone cannot fold across its joined edge.
      'layers that are joined elsewhere',
      { columns: [1, 1], rows: [1, 1] },
      [under(1, 'before'), { ...TOP_UNDER(1), goes: 'over', layers: 1 }],
      { code: 'tears', fold: 1 },
    ],
  ])('%s', (_, flat, folds, error) => {
    expect(() => foldSheet(flat, folds)).toThrow(expect.objectContaining(error));
  });

  test('some layers fold by themselves: what lies on top over, what lies below under', () => {
    const halved = { sheet: { columns: [1, 1, 1, 1], rows: [1] }, fold: under(2, 'before') };
    const out = { ...LEFT_UNDER(3), moves: 'after' as const, layers: 1 };
    /** Those of two panels that lie on one another, the upper first, and the face that the moved one shows. */
    const pair = (fold: Fold, moved: number, kept: number) => {
      const stack = foldSheet(halved.sheet, [halved.fold, fold]);
      const order = stack.filter(({ column }) => column === moved || column === kept);
      return [...order.map(({ column }) => column), order.find(({ column }) => column === moved)!.up];
    };
    expect(pair({ ...out, goes: 'over' }, 3, 2)).toEqual([3, 2, 'back']);
    expect(pair(out, 0, 1)).toEqual([1, 0, 'front']);
  });

  /** Whether paper runs through paper: of two creases in one place and to one side, the panels take turns; or a panel reaches over a crease between its two. */
  function crossing(sheet: FlatSheet, folded: Folded): boolean {
    const depth = new Map(folded.stack.map((facet, n) => [idOf(facet), n]));
    const creases = creasesOf(sheet, folded).map((crease) => {
      const [a, b] = crease.panels.map((id) => depth.get(id)!) as [number, number];
      const { outline } = folded.stack[a]!;
      const edge = { left: outline.x0, right: outline.x1, foot: outline.y0, head: outline.y1 }[crease.side];
      return { ...crease, outline, edge, top: Math.min(a, b), bottom: Math.max(a, b) };
    });
    const beside = (axis: Axis, a: Box, b: Box) =>
      axis === 'vertical'
        ? a.y0 < b.y1 - 1e-6 && a.y1 > b.y0 + 1e-6
        : a.x0 < b.x1 - 1e-6 && a.x1 > b.x0 + 1e-6;
    return creases.some((one, n) => {
      const [low, high] = one.axis === 'vertical' ? (['x0', 'x1'] as const) : (['y0', 'y1'] as const);
      const through = folded.stack
        .slice(one.top + 1, one.bottom)
        .some(
          ({ outline: o }) =>
            o[low] < one.edge - 1e-6 && o[high] > one.edge + 1e-6 && beside(one.axis, o, one.outline),
        );
      const inside = (at: number) => at > one.top && at < one.bottom;
      return (
        through ||
        creases
          .slice(n + 1)
          .some(
            (two) =>
              two.axis === one.axis &&
              two.side === one.side &&
              Math.abs(two.edge - one.edge) < 1e-6 &&
              beside(one.axis, one.outline, two.outline) &&
              inside(two.top) !== inside(two.bottom),
          )
      );
    });
  }

  test('whatever folds it accepts, panels stay joined where they were, none is lost, and paper never runs through paper', () => {
    const any = fc.record({
      axis: fc.constantFrom('vertical' as const, 'horizontal' as const),
      at: fc.integer({ min: 0, max: 6 }),
      moves: fc.constantFrom('before' as const, 'after' as const),
      goes: fc.constantFrom('over' as const, 'under' as const),
      layers: fc.constantFrom(undefined, 1, 2, 3),
    });
    let accepted = 0;
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 2 }), { minLength: 1, maxLength: 4 }),
        fc.array(fc.integer({ min: 1, max: 2 }), { minLength: 1, maxLength: 3 }),
        fc.array(any, { minLength: 1, maxLength: 12 }),
        (columns, rows, tried) => {
          const sheet = { columns, rows };
          let folds: Fold[] = [];
          for (const { layers, ...fold } of tried) {
            const next = [...folds, layers ? { ...fold, layers } : fold];
            try {
              foldStates(sheet, next);
              folds = next;
              accepted++;
            } catch (error) {
              expect(error).toBeInstanceOf(FoldError);
            }
          }
          const folded = foldStates(sheet, folds).at(-1)!;
          expect(new Set(folded.stack.map(idOf)).size).toBe(columns.length * rows.length);
          const facet = (id: number) => folded.stack.find((each) => idOf(each) === id)!;
          for (const { a, b, axis } of folded.joints) {
            const [one, two] = [facet(a), facet(b)];
            const [xs, ys] = [edgesOf(columns), edgesOf(rows)];
            const [x, y] =
              axis === 'vertical' ? [xs[one.column + 1]!, ys[one.row]!] : [xs[one.column]!, ys[one.row + 1]!];
            const [from, to] = [applyToPoint(one.matrix, x, y), applyToPoint(two.matrix, x, y)];
            expect(Math.hypot(from.x - to.x, from.y - to.y)).toBeLessThan(1e-9);
          }
          expect(crossing(sheet, folded)).toBe(false);
        },
      ),
      { numRuns: 300 },
    );
    expect(accepted).toBeGreaterThan(100);
  });
});

test('own folds with other numbers of panels keep what folds there still are; a quarter turn four times is none', () => {
  const own: OwnPattern = {
    fold: 'own',
    name: 'x',
    columns: [10, 20, 30],
    rows: [40],
    folds: [under(1, 'before'), under(2, 'after')],
  };
  expect(withPanels(own, 'columns', 2)).toMatchObject({ columns: [10, 20], folds: [{ border: 1 }] });
  expect(withPanels(own, 'columns', 4)).toMatchObject({ columns: [10, 20, 30, 30], folds: own.folds });
  expect(withPanels(own, 'rows', 2)).toMatchObject({ rows: [40, 40], folds: own.folds });
  let turned: Pattern = own;
  for (let n = 0; n < 4; n++) turned = turnedPattern(turned);
  expect(turned).toEqual({ columns: own.columns, rows: own.rows, folds: own.folds });
});

describe('usual folds', () => {
  const widths = (choice: PatternChoice, total: number, allowance: number, caliper = 0) =>
    panelWidths(patternOf(choice), 'vertical', total, { allowance, caliper }).map(({ width }) => width);
  // By practice: A4 in three, 97 + 100 + 100 mm; Letter in three, 3 5/8 + 3 11/16 + 3 11/16 in.
  test('letter fold of A4 and of Letter', () => {
    widths({ fold: 'letter' }, mm(297), mm(3)).forEach((width, n) =>
      expect(width).toBeCloseTo(mm([97, 100, 100][n]!), 9),
    );
    widths({ fold: 'letter' }, 11 * 72, 72 / 16).forEach((width, n) =>
      expect(width).toBeCloseTo([3 + 5 / 8, 3 + 11 / 16, 3 + 11 / 16][n]! * 72, 9),
    );
  });

  // Arithmetic, with 2 mm of allowance and 0.1 mm of paper.
  test.each<[PatternChoice, number, number[]]>([
    [{ fold: 'accordion', panels: 4 }, 400, [100, 100, 100, 100]],
    [{ fold: 'half' }, 210, [105, 105]],
    [{ fold: 'gate' }, 418, [104, 210, 104]],
    // Both flaps lie in the last fold.
    [{ fold: 'closed-gate' }, 395.6, [97.8, 100, 100, 97.8]],
    // Each panel is rolled into the next: the innermost gives way twice, the second time to two layers.
    [{ fold: 'roll', panels: 4 }, 400 - 2.2 - 4.3, [95.7, 97.8, 100, 100]],
  ])('%j', (choice, total, expected) => {
    widths(choice, mm(total), mm(2), mm(0.1)).forEach((width, n) =>
      expect(width).toBeCloseTo(mm(expected[n]!), 6),
    );
  });

  // Arithmetic: how many panels come to lie on one another.
  test.each<[PatternChoice, number]>([
    [{ fold: 'half' }, 2],
    [{ fold: 'letter' }, 3],
    [{ fold: 'accordion', panels: 7 }, 7],
    [{ fold: 'roll', panels: 5 }, 5],
    [{ fold: 'gate' }, 2],
    [{ fold: 'closed-gate' }, 4],
    [{ fold: 'double-parallel' }, 4],
    [{ fold: 'french' }, 4],
    [{ fold: 'map', columns: 6, rows: 3 }, 18],
    [{ fold: 'right-angle', pages: 32 }, 16],
  ])(
    '%j folds with the widths it asks for, every panel once, and has a hinge for all but one',
    (choice, layers) => {
      const pattern = patternOf(choice);
      const across = panelWidths(pattern, 'vertical', 1000, { allowance: 4, caliper: 0.3 });
      const up = panelWidths(pattern, 'horizontal', 700, { allowance: 4, caliper: 0.3 });
      const sheet = { columns: across.map(({ width }) => width), rows: up.map(({ width }) => width) };
      expect(sheet.columns.reduce((sum, width) => sum + width)).toBeCloseTo(1000, 9);
      const folded = foldStates(sheet, pattern.folds).at(-1)!;
      const panels = sheet.columns.length * sheet.rows.length;
      expect(new Set(folded.stack.map(({ column, row }) => `${column} ${row}`)).size).toBe(panels);
      expect(hingesOf(sheet, folded)).toHaveLength(panels - 1);
      expect(creasesOf(sheet, folded).length).toBeGreaterThanOrEqual(pattern.folds.length);
      expect(mostLayers(folded.stack)).toBe(layers);
      expect(layersAt(folded.stack, -1, -1)).toBe(0);
    },
  );

  test('folds drawn on a flat sheet are those of the letter fold; a border that is there is folded, edges are not', () => {
    const sheet: OwnPattern = { fold: 'own', name: 'x', columns: [mm(297)], rows: [mm(210)], folds: [] };
    const drawn = withFoldAt(withFoldAt(sheet, 'vertical', mm(197)), 'vertical', mm(97));
    expect(drawn.columns.map((width) => width / mm(1))).toEqual(
      [97, 100, 100].map((width) => expect.closeTo(width, 9)),
    );
    // The first one drawn is still where it was: its border counts one more now.
    expect(drawn.folds).toEqual([
      { axis: 'vertical', border: 2, moves: 'after', goes: 'under' },
      { axis: 'vertical', border: 1, moves: 'before', goes: 'under' },
    ]);
    const again = withFoldAt(drawn, 'vertical', mm(197.2));
    expect(again.columns).toEqual(drawn.columns);
    expect(again.folds.at(-1)).toMatchObject({ border: 2 });
    for (const at of [0, mm(297)]) expect(withFoldAt(drawn, 'vertical', at)).toBe(drawn);
    expect(withFoldAt(drawn, 'horizontal', mm(105)).rows).toEqual([mm(105), mm(105)]);
    expect(foldStates(drawn, drawn.folds.toReversed()).at(-1)!.stack).toHaveLength(3);
  });

  test('own folds that cannot be made ask for no widths, and are told apart by foldStates', () => {
    const own = { columns: [1, 1], rows: [1], folds: [under(1, 'before'), under(1, 'before')] };
    expect(panelWidths(own, 'vertical', 200, { allowance: 4, caliper: 0 }).map(({ width }) => width)).toEqual(
      [100, 100],
    );
    expect(() => foldStates(own, own.folds)).toThrow(FoldError);
  });

  test('a letter fold closes two mountains over its back, a gatefold too, an accordion goes to and fro', () => {
    const ways = (choice: PatternChoice) => {
      const pattern = patternOf(choice);
      return creasesOf(pattern, foldStates(pattern, pattern.folds).at(-1)!).map(({ way }) => way);
    };
    expect(ways({ fold: 'letter' })).toEqual(['mountain', 'mountain']);
    expect(ways({ fold: 'gate' })).toEqual(['mountain', 'mountain']);
    expect(ways({ fold: 'accordion', panels: 5 })).toEqual(
      ['mountain', 'valley', 'mountain', 'valley'].reverse(),
    );
  });
});

test('a closed edge is one where a crease lies: an 8-page signature is closed at its spine and its head', () => {
  const pattern = signaturePattern(8, 'left');
  const creases = creasesOf(pattern, foldStates(pattern, pattern.folds).at(-1)!);
  const sides = creases.map(({ side }) => side);
  expect(sides.filter((side) => side === 'left')).toHaveLength(2);
  expect(sides.filter((side) => side === 'head')).toHaveLength(2);
  expect(new Set(sides)).toEqual(new Set(['left', 'head']));
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
