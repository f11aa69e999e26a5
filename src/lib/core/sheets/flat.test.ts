import fc from 'fast-check';
import { expect, test } from 'vitest';
import {
  bookOf,
  docketOf,
  hashOf,
  plainSurvey,
  stepsOf,
  survey,
  surveyPage,
  takeInStep,
} from '../../../../tests/makers';
import { workOut } from '../checks';
import type { Box, Size } from '../measure/box';
import { mm } from '../measure/unit';
import { cutList, cutsOf, type Cut } from '../finish/cuts';
import { gang } from './gang';
import { mapCsv, sheetMap, toCsv } from './map';
import { rankStocks } from './rank';
import { runOf } from './run';
import { PLAIN_SCHEMES, type Flat } from './schemes';

const sizes = fc.record({
  width: fc.integer({ min: 20, max: 210 }),
  height: fc.integer({ min: 20, max: 210 }),
});
const near = (a: number, b: number) => Math.abs(a - b) < 0.02;
const sameBox = (a: Box, b: Box) =>
  near(a.x0, b.x0) && near(a.x1, b.x1) && near(a.y0, b.y0) && near(a.y1, b.y1);

/** Cuts paper as an operator would: each cut goes right through one of the pieces that are there. */
function cutUp(sheet: Size, cuts: readonly Cut[]): Box[] {
  let papers: Box[] = [{ x0: 0, y0: 0, x1: sheet.width, y1: sheet.height }];
  cuts.forEach(({ number, axis, at, paper }, n) => {
    expect(number).toBe(n + 1);
    const under = papers.find((each) => sameBox(each, paper))!;
    expect(under, `cut ${number} goes through a piece that is there`).toBeDefined();
    const [low, high] = axis === 'vertical' ? (['x0', 'x1'] as const) : (['y0', 'y1'] as const);
    expect(at > under[low] && at < under[high]).toBe(true);
    papers = [...papers.filter((each) => each !== under), { ...under, [high]: at }, { ...under, [low]: at }];
  });
  return papers;
}

test('whatever is ganged, the quantities are met, nothing overlaps or leaves the sheet, and the cut list parts every piece with through-cuts', () => {
  fc.assert(
    fc.property(
      fc.array(fc.record({ size: sizes, quantity: fc.integer({ min: 1, max: 300 }) }), {
        minLength: 1,
        maxLength: 7,
      }),
      fc.constantFrom(0, 3, 6),
      (wanted, gap) => {
        const room = { width: 640, height: 900 };
        const found = gang(wanted, room, gap);
        if (!found) return;
        wanted.forEach(({ quantity }, n) =>
          expect(found.each[n]! * found.sheets).toBeGreaterThanOrEqual(quantity),
        );
        // One sheet fewer would not do.
        expect(wanted.some(({ quantity }, n) => found.each[n]! * (found.sheets - 1) < quantity)).toBe(true);
        const boxes = found.placed.map(({ piece, x, y, turned }): Box => {
          const { width, height } = wanted[piece]!.size;
          return { x0: x, y0: y, x1: x + (turned ? height : width), y1: y + (turned ? width : height) };
        });
        boxes.forEach((a, n) => {
          expect(a.x1 <= room.width + 1e-6 && a.y1 <= room.height + 1e-6).toBe(true);
          for (const b of boxes.slice(n + 1))
            expect(
              a.x1 <= b.x0 - gap + 1e-6 ||
                b.x1 <= a.x0 - gap + 1e-6 ||
                a.y1 <= b.y0 - gap + 1e-6 ||
                b.y1 <= a.y0 - gap + 1e-6,
            ).toBe(true);
        });
        const papers = cutUp(room, cutsOf(boxes, room));
        for (const box of boxes) expect(papers.filter((paper) => sameBox(paper, box))).toHaveLength(1);
      },
    ),
    { numRuns: 150 },
  );
});

test('pieces round a hole in the middle cannot be parted by a guillotine', () => {
  const pinwheel = [
    { x0: 0, x1: 2, y0: 0, y1: 1 },
    { x0: 2, x1: 3, y0: 0, y1: 2 },
    { x0: 1, x1: 3, y0: 2, y1: 3 },
    { x0: 0, x1: 1, y0: 1, y1: 3 },
  ];
  expect(() => cutsOf(pinwheel, { width: 3, height: 3 })).toThrow('no through-cut');
});

// Arithmetic: rows first, then the pieces of each row; a gap takes two cuts, a shared edge one.
test.each([
  [mm(4), 2 + 2 + 2 * (2 + 2)],
  [0, 2 + 1 + 2 * (2 + 1)],
])('four cards with %d points between take %d cuts', (between, count) => {
  const scheme: Flat = { ...PLAIN_SCHEMES.flat, copies: { across: 2, up: 2 }, between };
  const { plan } = workOut(
    docketOf([takeInStep('a')], { scheme, book: bookOf('right', { facing: false }) }),
    { [hashOf('a')]: survey([surveyPage({ width: mm(55), height: mm(85) })]) },
  );
  expect(cutList(plan!, 0)).toHaveLength(count);
});

test('pieces by quantity: as many sheets as the scarcest needs, and the overs of the run', () => {
  const steps = stepsOf([
    { kind: 'take-in', source: hashOf('a'), name: 'a.pdf', where: { at: 'end' } },
    { kind: 'piece', pages: '1', name: 'Letterhead', quantity: 500 },
    { kind: 'piece', pages: '2', name: 'Card', quantity: 2000 },
  ]);
  const scheme: Flat = {
    ...PLAIN_SCHEMES.flat,
    arrange: 'gang',
    stock: { width: mm(640), height: mm(900) },
    run: { overs: 10 },
  };
  const { plan } = workOut(docketOf(steps, { scheme, book: bookOf('right', { facing: false }) }), {
    [hashOf('a')]: survey([
      surveyPage({ width: mm(210), height: mm(297) }),
      surveyPage({ width: mm(85), height: mm(55) }),
    ]),
  });
  const { each, sheets } = plan!.gang!;
  expect(sheets).toBe(Math.max(Math.ceil(500 / each[0]!), Math.ceil(2000 / each[1]!)));
  expect(runOf(plan!, scheme)).toMatchObject({ net: sheets, overs: Math.ceil(sheets / 10) });
  expect(plan!.sheets[0]!.front.cells).toHaveLength(each[0]! + each[1]!);
});

test('whatever is wanted together, and from one plate or two, the gang lies on the sheet it was worked out for, a mark in line with each trim', () => {
  fc.assert(
    fc.property(
      fc.array(fc.record({ size: sizes, quantity: fc.integer({ min: 1, max: 40 }) }), {
        minLength: 1,
        maxLength: 4,
      }),
      fc.constantFrom('sheetwise' as const, 'work-and-turn' as const, 'work-and-tumble' as const),
      fc.constantFrom('gang' as const, 'stack' as const),
      fc.constantFrom(0, mm(2), mm(6)),
      (wanted, work, arrange, between) => {
        const steps = stepsOf([
          { kind: 'take-in', source: hashOf('a'), name: 'a.pdf', where: { at: 'end' } },
          ...wanted.map(({ quantity }, n) => ({
            kind: 'piece' as const,
            pages: String(n + 1),
            name: `P${n}`,
            quantity,
          })),
        ]);
        const scheme: Flat = {
          ...PLAIN_SCHEMES.flat,
          arrange,
          between,
          work,
          stock: { width: mm(480), height: mm(500) },
        };
        // Piles are of pieces alike; others are found as of mixed sizes.
        const alike = wanted.map(({ size }) => (arrange === 'stack' ? wanted[0]!.size : size));
        const pages = alike.map((size) => surveyPage({ width: mm(size.width), height: mm(size.height) }));
        const { plan } = workOut(docketOf(steps, { scheme, book: bookOf('right', { facing: false }) }), {
          [hashOf('a')]: survey(pages),
        });
        if (arrange === 'gang' && !plan!.gang) return;
        for (const { front, size } of plan!.sheets)
          for (const { trim } of front.cells) {
            // Every trim has a mark in line.
            const marks = front.lines.filter(({ kind }) => kind === 'trim-mark');
            for (const [low, high] of [
              ['x0', 'x1'],
              ['y0', 'y1'],
            ] as const)
              for (const edge of [low, high])
                expect(
                  marks.some(
                    (mark) =>
                      Math.abs(mark[low] - trim[edge]) < 0.01 && Math.abs(mark[high] - trim[edge]) < 0.01,
                  ),
                ).toBe(true);
            expect(
              trim.x0 >= -0.01 &&
                trim.y0 >= -0.01 &&
                trim.x1 <= size.width + 0.01 &&
                trim.y1 <= size.height + 0.01,
            ).toBe(true);
          }
      },
    ),
    { numRuns: 60 },
  );
});

test.each([
  ['of which none has a back are printed on one side', 1, undefined, 'single-side', false],
  ['of which one has a back are printed on both', 3, undefined, 'sheetwise', true],
  ['are printed on both sides where that was asked for', 1, 'sheetwise', 'sheetwise', true],
] as const)('pieces %s', (_, pages, asked, work, both) => {
  const flat: Flat = { ...PLAIN_SCHEMES.flat, ...(asked ? { work: asked } : {}) };
  const job = workOut(docketOf([takeInStep('a')], { book: bookOf('right'), scheme: flat }), {
    [hashOf('a')]: plainSurvey(pages),
  });
  expect(job.plan!.work).toBe(work);
  expect(job.plan!.sheets.every(({ back }) => !!back === both)).toBe(true);
});

test('the sheet map says of every cell where it lies, in millimetres; as CSV by RFC 4180', () => {
  const { plan } = workOut(docketOf([takeInStep('a')]), {
    [hashOf('a')]: survey(Array.from({ length: 4 }, () => surveyPage({ width: mm(148), height: mm(210) }))),
  });
  const rows = sheetMap(plan!);
  expect(rows.map(({ side, position, turn }) => `${side} ${position} ${turn}`)).toEqual([
    'front 4 0',
    'front 1 0',
    'back 2 0',
    'back 3 0',
  ]);
  // SRA3 lies: 450 × 320 mm, the spread of 296 × 210 in its middle.
  expect(rows[0]).toMatchObject({ sheet: 1, cell: 1, x: 77, y: 55, width: 148, height: 210 });
  expect(mapCsv(plan!).split('\r\n')[1]).toBe('1,front,1,4,4,4,77,55,148,210,0');
  expect(toCsv([{ a: '=SUM(1)', b: 'say "so", twice' }], ['a', 'b'])).toBe(
    `a,b\r\n'=SUM(1),"say ""so"", twice"\r\n`,
  );
});

// ISO 216: an A4 sheet is half an A3 and a quarter of an A2, but for rounding to whole millimetres.
test('stocks are ranked by what they waste, kept papers among them, with what is known of those', () => {
  const { list } = workOut(docketOf([takeInStep('a')], { book: bookOf('right', { facing: false }) }), {
    [hashOf('a')]: survey([surveyPage({ width: mm(210), height: mm(297) })]),
  });
  const scheme: Flat = { ...PLAIN_SCHEMES.flat, between: 0, marks: { trim: false, fold: false } };
  const odd = { width: mm(400), height: mm(600), grammage: 90 };
  const ranked = rankStocks(list, scheme, [{ name: 'Odd', settings: odd }]);
  expect(ranked.slice(0, 3).map(({ name, pieces }) => [name, pieces])).toEqual([
    ['A4', 1],
    ['A3', 2],
    ['A2', 4],
  ]);
  const found = ranked.find(({ name }) => name === 'Odd')!;
  // Two across the long side, one along the short: 2 × 210 × 297 of 400 × 600.
  expect(found).toMatchObject({ stock: odd, pieces: 2 });
  expect(found.waste).toBeCloseTo(1 - (2 * 210 * 297) / (400 * 600), 9);
  // Letter is 279.4 mm high, by 17.6 mm too little.
  expect(ranked.map(({ name }) => name)).not.toContain('Letter');
  expect(ranked.every(({ waste }, n) => !n || waste >= ranked[n - 1]!.waste - 1e-12)).toBe(true);
});
