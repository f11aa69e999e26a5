import fc from 'fast-check';
import { beforeAll, expect, test } from 'vitest';
import { bookOf, docketOf } from '../../../../tests/makers';
import { foldsOfPlan } from '../../../../tests/foldsOfPlan';
import { cut, fold, throughPaper, type Print } from '../../../../tests/hands';
import { give, make, markedPdf, wordsOf, type Given } from '../../../../tests/outside';
import { workOut } from '../../core/checks';
import type { Step } from '../../core/docket/steps';
import { cutList, cutOperations } from '../../core/finish/cuts';

import { mm } from '../../core/measure/unit';
import { patternOf, type PatternChoice } from '../../core/fold/patterns';
import { SPINES } from '../../core/model/page';
import type { SheetPlan } from '../../core/sheets/plan';
import { PLAIN_COVER, type Press } from '../../core/sheets/scheme';
import { PLAIN_SCHEMES, type Scheme } from '../../core/sheets/schemes';

let given: Given;
beforeAll(async () => {
  given = await give(await markedPdf(32, { width: 110, height: 150 }));
});

/** What is printed on each side of a sheet PDF, by poppler: pages by their markers. */
function printsOf(path: string): Omit<Print, 'face'>[][] {
  return wordsOf(path).map((words) => {
    const heads = words.filter(({ text }) => text.startsWith('HEAD'));
    return words
      .filter(({ text }) => /^P\d+$/.test(text))
      .map(({ text, x, y }) => {
        // Of several copies, the head nearest to the page's middle is its own.
        const off = (one: { x: number; y: number }) => Math.hypot(one.x - x, one.y - y);
        const [own] = heads
          .filter((head) => head.text === `HEAD${text.slice(1)}`)
          .sort((a, b) => off(a) - off(b));
        const [dx, dy] = [own!.x - x, own!.y - y];
        const head = Math.abs(dx) > Math.abs(dy) ? (dx > 0 ? 90 : 270) : dy > 0 ? 0 : 180;
        return { text, x, y, head };
      });
  });
}

type Piece = ReturnType<typeof cut>[0];
/** A piece taken up and laid on its face. */
const turnedOver = ({ size, prints }: Piece, axis: SheetPlan['turnAxis']): Piece => ({
  size,
  prints: throughPaper(prints, size, axis).map((print, n) => ({
    ...print,
    face: prints[n]!.face === 'front' ? 'back' : 'front',
  })),
});

/** The pieces of each sheet, front up, as they go to the folder. */
async function piecesOf(
  scheme: Scheme & Press,
  steps: readonly Step[],
  spine: (typeof SPINES)[number],
  facing = true,
) {
  const first = ({ left: 'right', right: 'left', head: 'lower' } as const)[spine];
  const docket = docketOf([...steps], { scheme, book: bookOf(first, { spine, facing }) });
  const { plan, findings } = workOut(docket, { [given.hash]: given.survey });
  const sides = printsOf(await make(docket, { kind: 'sheets' }, given));
  const backs = plan!.work === 'single-side' ? 0 : 1;
  const folded = foldsOfPlan(plan!);
  const sheets = Array.from({ length: plan!.sheetCount }, (_, n) => {
    const size = plan!.sheetSize(n);
    const side = (k: number) =>
      sides[n * (1 + backs) + k]!.map((each): Print => ({ ...each, face: 'front' }));
    const prints = [...side(0), ...(backs ? throughPaper(side(1), size, plan!.turnAxis) : [])];
    const how = folded.find(({ sheets: numbers }) => numbers.includes(n + 1));
    const whole = { size, prints };
    const pieces = how && !how.cutFirst ? [whole] : cut(size, prints, cutOperations(cutList(plan!, n)!));
    return { pieces, folds: how?.folds ?? [], name: how?.of };
  });
  return { plan: plan!, findings, sheets };
}

const takeIn = (pages: number): Step[] => [
  { id: 't', kind: 'take-in', source: given.hash, name: 'a.pdf', where: { at: 'end' } },
  ...(pages < 32 ? [{ id: 'r', kind: 'remove', pages: `${pages + 1}-32` } as Step] : []),
];

const press = fc.record({
  stock: fc.constant({ width: mm(900), height: mm(1000) }),
  turn: fc.constantFrom('short-edge' as const, 'long-edge' as const),
  work: fc.constantFrom('sheetwise' as const, 'work-and-turn' as const, 'work-and-tumble' as const),
  turned: fc.constantFrom(0 as const, 90 as const, 180 as const, 270 as const),
  lay: fc.constantFrom('centre' as const, 'left' as const, 'right' as const),
  gripper: fc.constantFrom(0, 20),
});

test('books folded, nested or gathered by what an operator is told: pages 1 to n in order, upright, each once (poppler)', async () => {
  let folded = 0;
  await fc.assert(
    fc.asyncProperty(
      press,
      fc.constantFrom(...SPINES),
      fc.constantFrom(4 as const, 8 as const, 16 as const, 32 as const),
      fc.constantFrom('stitched' as const, 'signatures' as const),
      fc.integer({ min: 1, max: 8 }),
      async (how, spine, signature, kind, fours) => {
        // As many as fill the last sheet.
        const pages = kind === 'stitched' ? signature * Math.ceil((4 * fours) / signature) : 4 * fours;
        const scheme = { ...PLAIN_SCHEMES[kind], ...how, signature } as Scheme & Press;
        const { plan, sheets } = await piecesOf(scheme, takeIn(pages), spine);
        for (let copy = 0; copy < sheets[0]!.pieces.length; copy++) {
          // A piece whose front was printed with the other backs is laid the other way up.
          const ways = [false, true].map((over) => {
            let book: { page: number; head: number | undefined }[] = [];
            for (const { pieces, folds } of sheets) {
              const piece = over ? turnedOver(pieces[copy]!, plan.turnAxis) : pieces[copy]!;
              const places = piece.prints.filter(({ face }) => face === 'front');
              const leaves = fold(piece.prints, places, folds).pile.flatMap(({ up, down }) =>
                [up, down].map((print) => ({ page: Number(print?.text.slice(1)), head: print?.head })),
              );
              const middle = book.length / 2;
              book =
                kind === 'stitched'
                  ? [...book.slice(0, middle), ...leaves, ...book.slice(middle)]
                  : [...book, ...leaves];
            }
            return book;
          });
          const right = Array.from({ length: pages }, (_, n) => ({
            page: n + 1,
            head: (how.turned + (spine === 'head' && n % 2 ? 180 : 0)) % 360,
          }));
          const [one, two] = ways;
          expect(JSON.stringify(two) === JSON.stringify(right) ? two : one).toEqual(right);
          folded++;
        }
      },
    ),
    { numRuns: 40 },
  );
  expect(folded).toBeGreaterThanOrEqual(40);
});

test('flat work cut by what an operator is told: every piece has its own front and back, as often as it is to (poppler)', async () => {
  await fc.assert(
    fc.asyncProperty(
      press,
      fc.constantFrom(...SPINES),
      fc.constantFrom('repeat' as const, 'sequence' as const, 'stack' as const, 'gang' as const),
      fc.constantFrom(0, mm(4)),
      fc.integer({ min: 1, max: 8 }),
      async (how, spine, arrange, between, leaves) => {
        const scheme = { ...PLAIN_SCHEMES.flat, ...how, arrange, between } as Scheme & Press;
        const { plan, sheets } = await piecesOf(scheme, takeIn(2 * leaves), spine);
        const seen = new Map<number, number>();
        for (const { pieces } of sheets)
          for (const { prints, size } of pieces) {
            if (!prints.length) continue;
            const [odd, even] = [...prints].sort((a, b) => Number(a.text.slice(1)) - Number(b.text.slice(1)));
            expect(prints).toHaveLength(2);
            const page = Number(odd!.text.slice(1));
            expect(page % 2).toBe(1);
            expect(Number(even!.text.slice(1))).toBe(page + 1);
            expect(odd!.face).not.toBe(even!.face);
            expect(even!.head).toBe((odd!.head + (spine === 'head' ? 180 : 0)) % 360);
            expect([size.width, size.height].sort((a, b) => a - b).map(Math.round)).toEqual([110, 150]);
            seen.set(page, (seen.get(page) ?? 0) + 1);
          }
        expect([...seen.keys()].sort((a, b) => a - b)).toEqual(
          Array.from({ length: leaves }, (_, n) => 2 * n + 1),
        );
        if (arrange === 'repeat') {
          const copies = plan.copies.across * plan.copies.up;
          expect([...seen.values()]).toEqual(Array<number>(leaves).fill(copies));
        }
      },
    ),
    { numRuns: 20 },
  );
});

test('fold-outs folded and tipped in, or nested, by what an operator is told: each face at its place (poppler)', async () => {
  await fc.assert(
    fc.asyncProperty(
      press.filter(({ work }) => work === 'sheetwise'),
      fc.constantFrom('left' as const, 'right' as const),
      fc.constantFrom('stitched' as const, 'signatures' as const),
      fc.constantFrom('front' as const, 'back' as const),
      fc.integer({ min: 1, max: 2 }),
      fc.integer({ min: 1, max: 8 }),
      async (how, spine, kind, folds, count, on) => {
        // The leaf with the fold-out is no part of a folded signature.
        const pages = kind === 'stitched' ? 8 : 10;
        const panel: Step = {
          id: 'p',
          kind: 'panel',
          pages: `${on}`,
          count,
          show: `${pages + 1}-${pages + 2 * count}`,
          allowance: mm(2),
          folds,
        };
        const scheme = { ...PLAIN_SCHEMES[kind], ...how, signature: 8 } as Scheme & Press;
        const { sheets } = await piecesOf(scheme, [...takeIn(pages + 2 * count), panel], spine);
        const said = (print: Print | undefined) => `${print?.text} ${print?.head}`;
        let book: string[] = [];
        // Where the booklet opens in the middle.
        let open = 0;
        for (const { pieces, folds: told, name } of sheets) {
          expect(pieces).toHaveLength(1);
          const [{ prints }] = pieces as [Piece];
          const { pile, middle } = fold(
            prints,
            prints.filter(({ face }) => face === 'front'),
            told,
          );
          const leaves = pile.flatMap(({ up, down }) => [said(up), said(down)]);
          const after = Number(/after page (\d+)/.exec(name ?? '')?.[1] ?? 0);
          const at = kind === 'stitched' ? open : name ? after : book.length;
          book = [...book.slice(0, at), ...leaves, ...book.slice(at)];
          open += 2 * middle;
        }
        // Folded in over its page, a panel shows its back; one that hangs on it lies between the two, its front up.
        const [one, two] = [
          [pages + 2, pages + 1],
          [pages + 3, pages + 4],
        ];
        const out = count === 1 ? one! : folds === 'front' ? [...one!, ...two!] : [...two!, ...one!];
        const front = on - ((on + 1) % 2);
        const right = Array.from({ length: pages / 2 }, (_, n) => [2 * n + 1, 2 * n + 2]).flatMap((leaf) =>
          leaf[0] !== front ? leaf : folds === 'front' ? [...out, ...leaf] : [...leaf, ...out],
        );
        expect(book).toEqual(right.map((page) => `P${page} ${how.turned}`));
      },
    ),
    { numRuns: 20 },
  );
});

test('a cover cut by what an operator is told lies as the book asks: front and back about its spine, each inside behind its own (poppler)', async () => {
  const parts = ['front', 'inside-front', 'inside-back', 'back'] as const;
  const pages = 4;
  for (const spine of SPINES)
    for (const turn of ['short-edge', 'long-edge'] as const) {
      const first = ({ left: 'right', right: 'left', head: 'lower' } as const)[spine];
      const cover: Step = { id: 'c', kind: 'cover', pages: `${pages + 1}-${pages + 4}`, parts: [...parts] };
      const scheme: Scheme = {
        ...PLAIN_SCHEMES.signatures,
        signature: 4,
        turn,
        stock: { width: 900, height: 1000 },
        cover: { ...PLAIN_COVER, stock: { width: 700, height: 500 }, spine: 10 },
      };
      const docket = docketOf([...takeIn(pages + 4), cover], { scheme, book: bookOf(first, { spine }) });
      const { plan } = workOut(docket, { [given.hash]: given.survey });
      const [front, back] = printsOf(await make(docket, { kind: 'sheets' }, given)).slice(-2);
      const { plan: sheet } = plan!.cover!;
      const size = sheet.sheetSize(0);
      const up = (side: typeof front) => side!.map((print): Print => ({ ...print, face: 'front' }));
      const pieces = cut(
        size,
        [...up(front), ...throughPaper(up(back), size, sheet.turnAxis)],
        cutOperations(cutList(sheet, 0)!),
      );
      expect(pieces).toHaveLength(1);
      const at = (part: (typeof parts)[number]) =>
        pieces[0]!.prints.find(({ text }) => text === `P${pages + 1 + parts.indexOf(part)}`)!;
      expect(Math.sign(at('front').x - at('back').x)).toBe({ left: 1, right: -1, head: 0 }[spine]);
      if (spine === 'head') expect(at('front').y).toBeLessThan(at('back').y);
      for (const part of ['front', 'back'] as const) {
        const [over, under] = [at(part), at(`inside-${part}`)];
        expect([over.face, under.face, over.head]).toEqual(['front', 'back', 0]);
        expect(under.head).toBe(spine === 'head' ? 180 : 0);
        expect(Math.hypot(over.x - under.x, over.y - under.y)).toBeLessThan(15);
      }
    }
});

test('leaflets cut and folded by what an operator is told: every panel once, the cover of a letter fold on top (poppler)', async () => {
  await fc.assert(
    fc.asyncProperty(
      press.filter(({ work }) => work === 'sheetwise'),
      fc.constantFrom<PatternChoice>(
        { fold: 'letter' },
        { fold: 'accordion', panels: 4 },
        { fold: 'closed-gate' },
        { fold: 'map', columns: 4, rows: 2 },
        { fold: 'right-angle', pages: 8 },
      ),
      async (how, pattern) => {
        const { columns, rows } = patternOf(pattern);
        const pages = 2 * columns.length * rows.length;
        // Panels of one size: what folds in has no room, which is found and is not what is looked at here.
        const scheme = { ...PLAIN_SCHEMES.leaflet, ...how, pattern, pages: 'panels' } as Scheme & Press;
        const { sheets } = await piecesOf(scheme, takeIn(pages), 'left', false);
        const [{ pieces, folds }] = sheets as [(typeof sheets)[0]];
        expect([sheets.length, pieces.length]).toEqual([1, 1]);
        const { prints } = pieces[0]!;
        const { pile } = fold(
          prints,
          prints.filter(({ face }) => face === 'front'),
          folds,
        );
        const met = pile.flatMap(({ up, down }) => [up, down]).map((print) => Number(print?.text.slice(1)));
        expect([...met].sort((a, b) => a - b)).toEqual(Array.from({ length: pages }, (_, n) => n + 1));
        expect(folds).toHaveLength(patternOf(pattern).folds.length);
        // Outside 1, 2, 3 from the left, inside 4, 5, 6: the left panel goes in, the cover is the right one. By practice.
        if (pattern.fold === 'letter') expect([met[0], met.at(-1)]).toEqual([3, 2]);
      },
    ),
    { numRuns: 15 },
  );
});

test('printed on one side, and as spreads and single pages: every page once, upright, facing pages side by side (poppler)', async () => {
  const one = {
    ...PLAIN_SCHEMES.flat,
    stock: { width: 900, height: 1000 },
    arrange: 'stack',
    work: 'single-side',
  };
  const { sheets } = await piecesOf(one as Scheme & Press, takeIn(7), 'left', false);
  const cutOut = sheets.flatMap(({ pieces }) => pieces.flatMap(({ prints }) => prints));
  expect(cutOut.map(({ text, head, face }) => `${text} ${head} ${face}`).sort()).toEqual(
    Array.from({ length: 7 }, (_, n) => `P${n + 1} 0 front`),
  );
  for (const spine of SPINES)
    for (const kind of ['spreads', 'single'] as const) {
      const first = ({ left: 'right', right: 'left', head: 'lower' } as const)[spine];
      const docket = docketOf(takeIn(6), { scheme: PLAIN_SCHEMES[kind], book: bookOf(first, { spine }) });
      const sides = printsOf(await make(docket, { kind: 'sheets' }, given)).map((side) =>
        [...side]
          .sort((a, b) => (spine === 'head' ? b.y - a.y : a.x - b.x))
          .map(({ text, head }) => `${text} ${head}`),
      );
      const pairs = [[1], [2, 3], [4, 5], [6]].map((pair) =>
        spine === 'right' ? [...pair].reverse() : pair,
      );
      const wanted = kind === 'single' ? [1, 2, 3, 4, 5, 6].map((page) => [page]) : pairs;
      expect(sides).toEqual(wanted.map((pair) => pair.map((page) => `P${page} 0`)));
    }
});
