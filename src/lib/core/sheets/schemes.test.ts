import { XMLParser } from 'fast-xml-parser';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { A5, bookOf, docketOf, hashOf, plainSurvey, takeInStep, twoSided } from '../../../../tests/makers';
import { workOut } from '../checks';
import { foldStates } from '../fold/fold';
import { signaturePattern } from '../fold/patterns';
import {
  contains,
  grow,
  hasArea,
  intersect,
  sizeBox,
  widthOf,
  heightOf,
  type Box,
  type Size,
} from '../measure/box';
import { applyToPoint } from '../measure/matrix';
import { mm } from '../measure/unit';
import { SPINES, type Book } from '../model/page';
import { readBack } from './readBack';
import type { Cell, SheetPlan } from './plan';
import { printedBox } from './press';
import { WORK_STYLES, type ByHand, type CellAt } from './pressTerms';
import { PLAIN_SCHEMES, type Flat, type PressScheme, type Scheme } from './schemes';
import { signatureSizes } from './stitched';
import { sheetsXjdf } from './xjdf';

const BOOKS = {
  left: bookOf('right'),
  right: bookOf('left', { spine: 'right' }),
  head: bookOf('lower', { spine: 'head' }),
};
const planOf = (
  pages: number,
  scheme: Scheme,
  { size = A5, book = BOOKS.left, bleed = mm(3) }: { size?: Size; book?: Book; bleed?: number } = {},
): SheetPlan =>
  workOut(
    docketOf(
      [
        takeInStep('a'),
        { id: 'b', kind: 'bleed', pages: 'all', head: bleed, foot: bleed, spine: bleed, fore: bleed },
      ],
      { scheme, book },
    ),
    { [hashOf('a')]: plainSurvey(pages, size) },
  ).plan!;
/** The positions of a side row by row from the head, heads down in brackets. */
const rows = (cells: readonly Cell[]): string[] => {
  const found = new Map<number, string[]>();
  for (const { trim, position, turn } of cells) {
    const row = Math.round(trim.y0);
    found.set(row, [...(found.get(row) ?? []), turn === 180 ? `(${position})` : `${position}`]);
  }
  return [...found.values()].map((row) => row.join(' '));
};
type Both = ReturnType<typeof twoSided>[0];
const loose = bookOf('right', { facing: false });
const flat = (more: Partial<Flat>): Flat => ({ ...PLAIN_SCHEMES.flat, ...more });

// Layouts by practice.
describe('signatures', () => {
  const large = { width: mm(640), height: mm(900) };
  test('16 pages: front 5 12 9 8 over 4 13 16 1, back 7 10 11 6 over 2 15 14 3', () => {
    const [{ front, back }] = twoSided(planOf(16, { ...PLAIN_SCHEMES.signatures, stock: large })) as [Both];
    expect(rows(front.cells)).toEqual(['(5) (12) (9) (8)', '4 13 16 1']);
    expect(rows(back.cells)).toEqual(['(7) (10) (11) (6)', '2 15 14 3']);
  });

  test('8 pages nested in a stitched booklet of 16', () => {
    const [outer, inner] = twoSided(
      planOf(16, { ...PLAIN_SCHEMES.stitched, stock: large, turn: 'long-edge', signature: 8 }),
    );
    expect(rows(outer!.front.cells)).toEqual(['(13) (4)', '16 1']);
    expect(rows(outer!.back.cells)).toEqual(['(3) (14)', '2 15']);
    expect(rows(inner!.front.cells)).toEqual(['(9) (8)', '12 5']);
  });

  test('the last signatures are smaller, 16 + 16 + 8 + 4, or filled up', () => {
    expect(signatureSizes(44, 16)).toEqual([16, 16, 8, 4]);
    const filled = planOf(44, { ...PLAIN_SCHEMES.signatures, last: 'blanks' });
    expect([filled.sheetCount, filled.blanksAdded]).toEqual([3, 4]);
    expect(planOf(43, PLAIN_SCHEMES.signatures)).toMatchObject({ sheetCount: 4, blanksAdded: 1 });
  });

  test('collating bars step down the spines, each on its own fold between first and last page', () => {
    const { sheets } = planOf(64, { ...PLAIN_SCHEMES.signatures, stock: large });
    const bars = sheets.map(({ front }) =>
      front.marks!.flatMap((item) => (item.kind === 'rect' ? [item.box] : [])),
    );
    expect(bars.map((each) => each.length)).toEqual([1, 1, 1, 1]);
    bars.slice(1).forEach(([bar], n) => expect(bars[n]![0]!.y1 - bar!.y1).toBeCloseTo(mm(10), 6));
    const first = sheets[0]!.front.cells.find(({ position }) => position === 1)!;
    expect(first.trim.x0 - bars[0]![0]!.x1).toBeCloseTo(mm(1), 6);
  });
});

describe('creep', () => {
  // By practice: nested sheet i is pushed out by i × caliper, (n−1) × caliper in all.
  test.each(['shift', 'scale'] as const)('by %s: none for one sheet, then a caliper more for each', (by) => {
    const creep = { by, caliper: mm(0.2) };
    expect(planOf(4, { ...PLAIN_SCHEMES.stitched, creep }).creep).toEqual([{ wanted: 0, done: 0 }]);
    const plan = planOf(16, { ...PLAIN_SCHEMES.stitched, creep });
    plan.creep!.forEach(({ done }, n) => expect(done).toBeCloseTo(n * mm(0.2), 9));
    twoSided(plan).forEach(({ front, size }, sheet) => {
      const right = front.cells[1]!;
      const fold = size.width / 2;
      expect(right.trim.x0).toBeCloseTo(fold, 6);
      expect(right.trim.x1).toBeCloseTo(fold + A5.width - sheet * mm(0.2), 6);
      const fore = applyToPoint(right.matrix, A5.width, 0).x;
      expect(fore).toBeCloseTo(right.trim.x1, 6);
      const spine = applyToPoint(right.matrix, 0, 0).x;
      expect(spine).toBeCloseTo(by === 'shift' ? fold - sheet * mm(0.2) : fold, 6);
    });
  });

  test('grammage × bulk is the caliper (ISO 534): 100 g/m² at 1.0 cm³/g are 0.1 mm', () => {
    const stock = { ...PLAIN_SCHEMES.stitched.stock, grammage: 100, bulk: 1 };
    const { creep } = planOf(8, { ...PLAIN_SCHEMES.stitched, stock, creep: { by: 'shift' } });
    expect(creep![1]!.wanted).toBeCloseTo(mm(0.1), 9);
  });

  test('moves nothing into the spine beyond the safe margin; what is short is said, and narrowing needs no limit', () => {
    const nested = (by: 'shift' | 'scale') =>
      workOut(
        docketOf([takeInStep('a')], {
          safe: mm(1),
          scheme: { ...PLAIN_SCHEMES.stitched, creep: { by, caliper: mm(0.2) } },
        }),
        { [hashOf('a')]: plainSurvey(32, A5) },
      );
    const { plan, findings } = nested('shift');
    const inmost = plan!.sheets.at(-1)!;
    const right = inmost.front.cells[1]!;
    expect(applyToPoint(right.matrix, 0, 0).x).toBeCloseTo(inmost.size.width / 2 - mm(1), 6);
    expect(findings.find(({ code }) => code === 'creep-over-safe')).toMatchObject({
      wanted: expect.closeTo(mm(1.4), 6),
      done: mm(1),
      leaves: 2,
      mend: { scheme: { creep: { by: 'scale' } } },
    });
    expect(nested('scale').findings.map(({ code }) => code)).not.toContain('creep-over-safe');
  });
});

describe('flat work', () => {
  const card = { width: mm(85), height: mm(55) };
  const size = { size: card, book: loose };
  // Arithmetic: 12 numbers, 4 up, carry 1 4 7 10, 2 5 8 11, 3 6 9 12.
  test('cut and stack: piles go on where the one before ends', () => {
    const copies = { across: 2, up: 2 };
    const plan = planOf(12, flat({ arrange: 'stack', copies }), size);
    expect(plan.sheets.map(({ front }) => rows(front.cells))).toEqual([
      ['1 4', '7 10'],
      ['2 5', '8 11'],
      ['3 6', '9 12'],
    ]);
  });

  test.each([
    ['across', 'head-left', ['1 2 3', '4 5 6']],
    ['down', 'head-left', ['1 3 5', '2 4 6']],
    ['snake', 'head-left', ['1 2 3', '6 5 4']],
    ['across', 'foot-right', ['6 5 4', '3 2 1']],
    ['snake', 'head-right', ['3 2 1', '4 5 6']],
  ] as const)('in sequence %s from %s', (goes, start, expected) => {
    const plan = planOf(6, flat({ arrange: 'sequence', goes, start, copies: { across: 3, up: 2 } }), size);
    expect(rows(plan.sheets[0]!.front.cells)).toEqual(expected);
  });

  // Arithmetic: SRA3 turned either way, cards with 6 mm between, 8 mm of marks at each side.
  test('as many as fit, the sheet turned the better way', () => {
    const plan = planOf(1, flat({ copies: 'most' }), size);
    const [w, h] = [plan.sheet.width / mm(1) - 16, plan.sheet.height / mm(1) - 16];
    const fit = (a: number, b: number) => Math.floor((a + 6) / 91) * Math.floor((b + 6) / 61);
    expect(plan.copies.across * plan.copies.up).toBe(Math.max(fit(w, h), fit(h, w)));
  });
});

describe('whatever the scheme, spine, work style, turn, lay and gripper', () => {
  const press = fc.record({
    turn: fc.constantFrom('short-edge' as const, 'long-edge' as const),
    work: fc.constantFrom(...WORK_STYLES),
    lay: fc.constantFrom('centre' as const, 'left' as const, 'right' as const),
    gripper: fc.constantFrom(0, mm(10)),
    turned: fc.constantFrom(0 as const, 90 as const, 180 as const, 270 as const),
    copies: fc.constantFrom({ across: 2, up: 2 }, { across: 1, up: 1 }, { across: 3, up: 1 }),
    between: fc.constantFrom(0, mm(6), mm(10)),
  });
  const kinds = fc.constantFrom<PressScheme>(
    { ...PLAIN_SCHEMES.stitched, creep: { by: 'shift', caliper: mm(0.1) } },
    { ...PLAIN_SCHEMES.stitched, signature: 8, cutOff: mm(3) },
    { ...PLAIN_SCHEMES.stitched, signature: 32, gap: mm(2) },
    PLAIN_SCHEMES.signatures,
    { ...PLAIN_SCHEMES.signatures, signature: 8, roughing: 0 },
    { ...PLAIN_SCHEMES.leaflet, pattern: { fold: 'closed-gate' } },
    PLAIN_SCHEMES.flat,
    { ...PLAIN_SCHEMES.flat, arrange: 'stack' },
  );
  const marks = {
    trim: true,
    fold: true,
    centre: true,
    registration: true,
    bar: true,
    slug: '{job} {sheet} {side} {ink}',
  };
  const stock = { width: mm(3000), height: mm(4000) };
  const through = (box: Box, sheet: Size, axis: SheetPlan['turnAxis']): Box =>
    axis === 'vertical'
      ? { ...box, x0: sheet.width - box.x1, x1: sheet.width - box.x0 }
      : { ...box, y0: sheet.height - box.y1, y1: sheet.height - box.y0 };
  const all = (by: number) => ({ left: by, right: by, head: by, foot: by });
  const area = (box: Box) => Math.max(0, widthOf(box)) * Math.max(0, heightOf(box));

  test('cells do not overlap and lie on the sheet less its gripper, backs behind their fronts, marks in nobody’s bleed', () => {
    fc.assert(
      fc.property(
        kinds,
        press,
        fc.constantFrom(...SPINES),
        fc.integer({ min: 4, max: 40 }),
        (kind, given, spine, pages) => {
          const scheme = { ...kind, ...given, stock, marks };
          const plan = planOf(pages, scheme, { book: BOOKS[spine] });
          const { sheet, turnAxis } = plan;
          const inside = printedBox(sheet, scheme);
          for (const { front, back } of plan.sheets) {
            for (const side of back ? [front, back] : [front]) {
              side.cells.forEach((cell, n) => {
                expect(contains(inside, cell.trim, 1e-6)).toBe(true);
                for (const other of side.cells.slice(n + 1, n + 40)) {
                  expect(area(intersect(cell.trim, other.trim))).toBeLessThan(1e-3);
                  expect(area(intersect(cell.clip, other.clip))).toBeLessThan(1e-3);
                }
                for (const { kind, ...line } of side.lines) {
                  if (kind === 'fold') continue;
                  expect(hasArea(intersect(grow(cell.clip, all(-0.02)), grow(line, all(0.001)))), kind).toBe(
                    false,
                  );
                }
                for (const item of side.marks ?? [])
                  if (item.kind === 'rect') expect(area(intersect(cell.clip, item.box))).toBeLessThan(1e-3);
              });
            }
            if (!back) continue;
            // The two faces of a leaf register: what is behind a page is its own back.
            for (const cell of front.cells) {
              // A last page by itself has nothing behind it on flat work and leaflets.
              const alone = cell.position % 2 === 1 && cell.position === plan.pages.length;
              if (alone) continue;
              const behind = back.cells.find(
                (other) =>
                  other.position === (cell.position % 2 ? cell.position + 1 : cell.position - 1) &&
                  area(intersect(through(other.trim, sheet, turnAxis), cell.trim)) > 0.9 * area(cell.trim),
              );
              expect(behind, `page ${cell.position}`).toBeDefined();
            }
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  test('work-and-turn and work-and-tumble print both sides from one plate', () => {
    fc.assert(
      fc.property(
        kinds,
        press,
        fc.constantFrom('work-and-turn' as const, 'work-and-tumble' as const),
        (kind, given, work) => {
          const plan = planOf(16, { ...kind, ...given, work, stock, marks: { trim: true, fold: true } });
          const told = (cells: readonly Cell[]) =>
            cells
              .map(
                ({ position, turn, trim }) =>
                  `${position} ${turn} ${[trim.x0, trim.y0, trim.x1, trim.y1].map((at) => at.toFixed(3)).join(' ')}`,
              )
              .sort();
          for (const { front, back } of twoSided(plan)) expect(told(back.cells)).toEqual(told(front.cells));
        },
      ),
      { numRuns: 60 },
    );
  });

  test('folding the sheet gives pages 1…n in order, all upright; every page once', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(4 as const, 8 as const, 16 as const, 32 as const),
        fc.constantFrom(...SPINES),
        (signature, spine) => {
          const plan = planOf(
            signature,
            { ...PLAIN_SCHEMES.signatures, signature, stock },
            { book: BOOKS[spine] },
          );
          const { front, back } = twoSided(plan)[0]!;
          const pattern = signaturePattern(signature, spine);
          const stack = foldStates(pattern, pattern.folds).at(-1)!.stack;
          const [across, up] = [pattern.columns.length, pattern.rows.length];
          const seen = stack.flatMap(({ column, row, up: shows, matrix }) => {
            // The panel's place among the cells of a side, counted as that side is seen.
            const at = (cells: readonly Cell[], c: number) => {
              const xs = [...new Set(cells.map(({ trim }) => Math.round(trim.x0)))].sort((a, b) => a - b);
              const ys = [...new Set(cells.map(({ trim }) => Math.round(trim.y0)))].sort((a, b) => a - b);
              expect([xs.length, ys.length]).toEqual([across, up]);
              return cells.find(
                ({ trim }) => Math.round(trim.x0) === xs[c] && Math.round(trim.y0) === ys[row],
              )!;
            };
            // The back was turned about a horizontal axis where the sheet lies upright: counted from its other end.
            const upside = plan.turnAxis === 'horizontal';
            const behind = { c: upside ? column : across - 1 - column, r: upside ? up - 1 - row : row };
            const under = ((r) => {
              const xs = [...new Set(back.cells.map(({ trim }) => Math.round(trim.x0)))].sort(
                (a, b) => a - b,
              );
              const ys = [...new Set(back.cells.map(({ trim }) => Math.round(trim.y0)))].sort(
                (a, b) => a - b,
              );
              return back.cells.find(
                ({ trim }) => Math.round(trim.x0) === xs[behind.c] && Math.round(trim.y0) === ys[r],
              )!;
            })(behind.r);
            const own = at(front.cells, column);
            const down = matrix[3] < 0;
            const upright = (cell: Cell, isBack: boolean) => {
              const seenTurn = (cell.turn + (isBack && upside ? 180 : 0) + (down ? 180 : 0)) % 360;
              // A leaf that turns upwards shows its back the other way up.
              return seenTurn === (spine === 'head' && cell.position % 2 === 0 ? 180 : 0);
            };
            expect([upright(own, false), upright(under, true)]).toEqual([true, true]);
            return shows === 'front' ? [own.position, under.position] : [under.position, own.position];
          });
          expect(seen).toEqual(Array.from({ length: signature }, (_, n) => n + 1));
        },
      ),
    );
  });
});

test('reader spreads and single pages have their sheets made to size', () => {
  const spreads = planOf(5, PLAIN_SCHEMES.spreads);
  expect(spreads.sheets.map(({ front }) => rows(front.cells))).toEqual([['1'], ['2 3'], ['4 5']]);
  expect(spreads.sheets.map(({ back }) => back)).toEqual([undefined, undefined, undefined]);
  expect(spreads.sheets[1]!.size.width).toBeCloseTo(2 * A5.width + 2 * mm(8), 6);
  const single = planOf(3, PLAIN_SCHEMES.single);
  for (const { front, size } of single.sheets) {
    expect(front.cells).toHaveLength(1);
    expect(contains(sizeBox(size), front.cells[0]!.clip)).toBe(true);
    expect(front.lines.filter(({ kind }) => kind === 'trim-mark')).toHaveLength(8);
  }
});

describe('cells changed by hand', () => {
  const booklet = (byHand: ByHand[]) => planOf(8, { ...PLAIN_SCHEMES.stitched, byHand });
  const [p8, p1, p2]: CellAt[] = [
    { sheet: 1, side: 'front', cell: 1 },
    { sheet: 1, side: 'front', cell: 2 },
    { sheet: 1, side: 'back', cell: 1 },
  ];
  /** What the folded piece shows in the places that changed. */
  const read = (plan: SheetPlan) =>
    plan.hand!.changed.map(
      ({ place, shows, turned }) => `${place.name}:${shows?.name ?? '-'}${turned ? ' turned' : ''}`,
    );

  test('are turned, swapped and left out where they lie, and the folded piece shows it', () => {
    const plan = booklet([
      { do: 'swap', at: p8!, with: p2! },
      { do: 'turn', at: p8! },
      { do: 'leave-out', at: p1! },
    ]);
    const [{ front, back }] = twoSided(plan) as [Both];
    expect(rows(front.cells)).toEqual(['(2) 1']);
    expect(rows(back.cells)).toEqual(['8 7']);
    expect(front.cells[1]).toMatchObject({ hand: 'left-out' });
    expect(front.cells[1]!.page).toBeUndefined();
    expect(read(plan)).toEqual(['8:2 turned', '2:8', '1:-']);
    // A page that is upside down or missing is not read; all others are met in their own places.
    expect(readBack(plan, 'left')).toEqual([0, 8, 3, 4, 5, 6, 7, 0]);
  });

  test('are as planned once the same is done again, and cells that are not there are said', () => {
    const twice: ByHand[] = [
      { do: 'swap', at: p8!, with: p2! },
      { do: 'turn', at: p1! },
    ];
    const plan = booklet([...twice, ...twice]);
    expect(plan.hand).toMatchObject({ changed: [], gone: [] });
    expect(plan.sheets).toEqual(booklet([]).sheets);
    expect(booklet([{ do: 'turn', at: { ...p8!, sheet: 9 } }]).hand).toMatchObject({
      changed: [],
      gone: [0],
    });
  });
});

test('paths for a cutter and a creaser: the edges that are cut once each, and the folds, on the front alone', () => {
  const scheme = {
    ...PLAIN_SCHEMES.leaflet,
    pages: 'panels',
    marks: { trim: false, fold: false, paths: true },
  } as const;
  const plan = planOf(6, scheme, { book: loose, size: { width: mm(99), height: mm(210) } });
  const [{ front, back }] = twoSided(plan) as [Both];
  const paths = (kind: string) => front.lines.filter((line) => line.kind === kind);
  const length = (kind: string) =>
    paths(kind).reduce((sum, { x0, x1, y0, y1 }) => sum + x1 - x0 + y1 - y0, 0);
  // Around three panels, and between them.
  expect(length('cut-path')).toBeCloseTo(2 * mm(3 * 99) + 2 * mm(210), 4);
  expect(length('fold-path')).toBeCloseTo(2 * mm(210), 4);
  expect(back.lines.filter(({ kind }) => kind !== 'fold')).toEqual([]);
});

test('the sheets as XJDF say the paper, the work style and where every page lies', () => {
  const scheme: PressScheme = {
    ...PLAIN_SCHEMES.stitched,
    stock: { width: mm(450), height: mm(320), grammage: 100, bulk: 1.2, grain: 'short' },
  };
  const read = new XMLParser({
    ignoreAttributes: false,
    htmlEntities: true,
    attributeNamePrefix: '',
    isArray: (name) => name === 'Resource',
  });
  const { XJDF } = read.parse(sheetsXjdf(planOf(8, scheme), scheme, 'Moor & “line” <1>')) as {
    XJDF: {
      JobID: string;
      ResourceSet: { Name: string; Resource: Record<string, Record<string, unknown>>[] }[];
    };
  };
  expect(XJDF.JobID).toBe('Moor & “line” <1>');
  const [media, style, layout] = ['Media', 'ConventionalPrintingParams', 'Layout'].map(
    (name) => XJDF.ResourceSet.find((set) => set.Name === name)!.Resource,
  );
  expect(media![0]!.Media).toMatchObject({ Weight: '100', Thickness: '120', GrainDirection: 'ShortEdge' });
  expect(style![0]!.ConventionalPrintingParams).toEqual({ WorkStyle: 'WorkAndBack' });
  const placed = layout!.map(({ Layout }) =>
    (Layout!.PlacedObject as { Ord: string; CTM: string }[]).map(({ Ord }) => Ord),
  );
  expect(placed).toEqual([
    ['7', '0'],
    ['1', '6'],
    ['5', '2'],
    ['3', '4'],
  ]);
  const [{ CTM }] = layout![0]!.Layout!.PlacedObject as [{ CTM: string }];
  // Two A5 pages in the middle of the sheet: the left one begins half the sheet less its width from the left.
  expect(CTM.split(' ').map(Number)).toEqual([
    1,
    0,
    0,
    1,
    expect.closeTo(mm(225 - 148), 2),
    expect.closeTo(mm(55), 2),
  ]);
});
