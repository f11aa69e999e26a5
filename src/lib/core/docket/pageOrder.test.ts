import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { StepDraft as Draft } from './steps';
import { workOut } from '../checks';
import { applyToBox } from '../measure/matrix';
import { mm } from '../measure/unit';
import { faceLabels } from '../numbers/labels';
import { leafOf } from '../pages/leaves';
import { artsOf, boundAt, facesOf } from '../pages/page';
import { SPINES, type Page, type PageList } from '../model/page';
import { addressesOf, readingOrder } from '../pages/panels';
import { SCAN_ORDERS } from '../pages/rescue';
import { describeIndexes, resolveSelection } from '../select/selection';
import { workOutOrder } from '../pages/workOutOrder';
import { readBack } from '../sheets/readBack';
import { DEFAULT_SCHEME } from '../sheets/schemes';
import type { Cell } from '../sheets/plan';
import {
  A5,
  bookOf,
  docketOf,
  hashOf,
  plainSurvey,
  stepsOf,
  survey,
  surveyPage,
  takeInStep,
  twoSided,
} from '../../../../tests/makers';
import type { Docket } from './docket';
import { replay } from './replay';
import { applyStep } from './steps';

const surveys = (count: number, size = A5) => ({ [hashOf('a')]: plainSurvey(count, size) });
const work = (count: number, drafts: readonly Draft[], more: Partial<Docket> = {}) =>
  workOut(docketOf([takeInStep('a'), ...stepsOf(drafts)], more), surveys(count));
const indexes = (list: PageList) => list.pages.map(({ art }) => art?.index);
const problems = (count: number, draft: Draft, more: Partial<Docket> = {}) =>
  work(count, [draft], more).replay.failed.map(({ problem }) => problem.code);
const codes = (count: number, drafts: readonly Draft[], more: Partial<Docket> = {}) =>
  work(count, drafts, more)
    .findings.filter(({ level, stage }) => level !== 'note' && stage === 'pages')
    .map(({ code }) => code);

const panel = (pages: string, more: object = {}): Draft =>
  ({ kind: 'panel', pages, count: 1, allowance: mm(2), folds: 'back', ...more }) as Draft;

describe('any order of work', () => {
  const anyStep: fc.Arbitrary<Draft> = fc.oneof(
    fc.record({
      kind: fc.constant('blank'),
      count: fc.integer({ min: 1, max: 3 }),
      where: fc.constantFrom({ at: 'start' }, { at: 'end' }, { at: 'after', pages: '2' }),
    }),
    fc.record({ kind: fc.constant('remove'), pages: fc.constantFrom('1', '2-3', 'last', 'panels') }),
    fc.record({
      kind: fc.constant('move'),
      pages: fc.constantFrom('1', '3-4', 'last'),
      where: fc.constantFrom({ at: 'start' }, { at: 'end' }, { at: 'before', pages: '2' }),
    }),
    fc.record({
      kind: fc.constant('copy'),
      pages: fc.constantFrom('1', 'all', '5+1'),
      where: fc.constantFrom({ at: 'start' }, { at: 'end' }),
    }),
    fc.record({
      kind: fc.constant('take-in'),
      source: fc.constant(hashOf('a')),
      name: fc.constant('a.pdf'),
      where: fc.constantFrom({ at: 'start' }, { at: 'end' }),
    }),
    fc.constant(panel('5')),
    fc.constant(panel('1', { show: 'last-1-last' })),
    fc.record({
      kind: fc.constant('give-back'),
      pages: fc.constant('panels'),
      where: fc.constant({ at: 'end' }),
    }),
    fc.record({
      kind: fc.constant('split'),
      pages: fc.constantFrom('1', '4'),
      columns: fc.constant(2),
      rows: fc.constant(1),
      gutter: fc.constant(0),
    }),
  ) as fc.Arbitrary<Draft>;

  test('ids stay unique, leaves stay paired, panels have two faces and hang on a leaf that is there', () => {
    fc.assert(
      fc.property(fc.array(anyStep, { maxLength: 12 }), (drafts) => {
        const { list } = work(8, drafts);
        const ids = facesOf(list).map(({ id }) => id);
        expect(new Set(ids).size).toBe(ids.length);
        list.pages.forEach((_, index) => {
          const { leaf, face } = leafOf(index, list.book);
          expect([leaf, face]).toEqual([Math.floor(index / 2) + 1, index % 2 ? 'back' : 'front']);
        });
        expect((list.panels ?? []).map(({ panel }) => panel!.face)).toEqual(
          (list.panels ?? []).map((_, n) => (n % 2 ? 'back' : 'front')),
        );
        expect(addressesOf(list).size).toBe(list.panels?.length ?? 0);
        expect([...readingOrder(list)].sort((a, b) => a - b)).toEqual(ids.map((_, n) => n));
      }),
    );
  });

  test('panels never change a position, a label or a side, whatever is hung where and in whatever order', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 12 }), { maxLength: 6 }),
        fc.constantFrom('lettered', 'continued', 'none'),
        (leaves, panels) => {
          const book = { ...bookOf('right'), panels } as Docket['book'];
          const plain = work(12, [], { book }).list;
          const { list } = work(
            12,
            leaves.map((position) => panel(String(position))),
            { book },
          );
          expect(list.pages).toEqual(plain.pages);
          const [before, after] = [faceLabels(plain), faceLabels(list)];
          for (const { id } of plain.pages) expect(after.get(id)).toBe(before.get(id));
          expect(list.panels?.length ?? 0).toBe(2 * leaves.length);
        },
      ),
    );
  });

  test('replay after an earlier step was changed is doing it afresh', () => {
    fc.assert(
      fc.property(
        fc.array(anyStep, { minLength: 1, maxLength: 8 }),
        fc.nat(),
        anyStep,
        (drafts, at, other) => {
          const before = work(8, drafts).replay;
          const changed = drafts.map((draft, n) => (n === at % drafts.length ? other : draft));
          const docket = docketOf([takeInStep('a'), ...stepsOf(changed)]);
          const [reused, afresh] = [replay(docket, before.surveys, before), replay(docket, before.surveys)];
          expect(reused.list).toEqual(afresh.list);
          expect(reused.failed).toEqual(afresh.failed);
        },
      ),
    );
  });
});

describe('fold-outs', () => {
  test('a panel is two pages, addressed by its leaf; the default width is the page less the allowance, in turn', () => {
    const { list } = work(8, [panel('5', { count: 2 })]);
    expect([...addressesOf(list).values()]).toEqual(['5+1 front', '5+1 back', '5+2 front', '5+2 back']);
    expect(list.panels!.map(({ trim }) => Math.round((trim.width * 25.4) / 72))).toEqual([
      146, 146, 144, 144,
    ]);
    expect(resolveSelection('5+1 back, 6+2', list)).toEqual([9, 10, 11]);
    expect(describeIndexes([0, 8, 9, 11], list)).toBe('1, 5+1, 5+2 back');
    expect(describeIndexes(resolveSelection('panels', list), list)).toBe('panels');
    expect([...faceLabels(list)].slice(8).map(([, label]) => label)).toEqual(['5a', '5b', '5c', '5d']);
    const on = { ...list, book: { ...list.book, panels: 'continued' as const } };
    expect([...faceLabels(on)].slice(8).map(([, label]) => label)).toEqual(['9', '10', '11', '12']);
    // As met by turning the leaf: fronts outwards, backs inwards.
    expect(readingOrder(list).slice(4, 9)).toEqual([4, 8, 10, 11, 9]);
  });

  test('pages of the list become its faces, and are given back', () => {
    const shown = work(8, [panel('1', { show: '7-8', folds: 'front' })]).list;
    expect([indexes(shown), shown.panels!.map(({ art }) => art?.index)]).toEqual([
      [0, 1, 2, 3, 4, 5],
      [6, 7],
    ]);
    const back = work(8, [
      panel('1', { show: '7-8' }),
      { kind: 'give-back', pages: '1+1', where: { at: 'end' } },
    ]).list;
    expect([indexes(back), back.panels]).toEqual([[0, 1, 2, 3, 4, 5, 6, 7], []]);
    expect(codes(7, [panel('1', { show: '7' })])).toContain('panel-one-face');
    expect(problems(8, panel('1', { show: '2' }))).toEqual(['shows-itself']);
    expect(problems(8, panel('1', { show: '3-5' }))).toEqual(['too-many-faces']);
    expect(problems(8, { kind: 'give-back', pages: 'all', where: { at: 'end' } })).toEqual(['no-panels']);
    expect(problems(8, panel('1'), { book: boundAt(bookOf('right'), 'head') })).toEqual(['panel-at-head']);
  });

  test('findings: as wide as what it folds over, opened by the knife, meeting', () => {
    expect(codes(8, [panel('3', { width: A5.width })])).toEqual(
      expect.arrayContaining(['panel-too-wide', 'fold-at-trim']),
    );
    const narrowed: Draft = {
      kind: 'trim',
      pages: '3-4',
      width: A5.width - mm(3),
      height: A5.height,
      content: 'hold',
      fixed: { x: 'spine', y: 'head' },
    };
    expect(codes(8, [narrowed, panel('3')])).toEqual([]);
    const lower: Draft = { ...narrowed, pages: 'all', width: A5.width, height: 500 } as Draft;
    expect(codes(4, [panel('1'), panel('3'), lower])).toContain('panel-height');
    // Each mend does away with its finding.
    for (const drafts of [
      [panel('1'), panel('3'), lower],
      [panel('3', { width: A5.width, count: 2 })],
      [panel('3')],
    ]) {
      let tried: Draft[] = drafts;
      for (let n = 0; n < 8; n++) {
        const mend = work(8, tried).findings.find(({ level, mend }) => level === 'stop' && mend?.steps)?.mend;
        if (mend) tried = [...tried, ...(mend.steps as Draft[])];
      }
      expect(codes(8, tried)).toEqual([]);
    }
    expect(codes(4, [panel('1', { width: A5.width + mm(30) }), panel('4', { folds: 'front' })])).toContain(
      'panels-meet',
    );
  });

  // Arithmetic: outside D 4 1 A, inside B 2 3 C.
  test.each(['short-edge', 'long-edge'] as const)(
    'the 4-page folder with a fold-out on each end, turned on the %s',
    (turn) => {
      const plan = work(4, [panel('1'), panel('4', { folds: 'front' })], {
        scheme: { ...DEFAULT_SCHEME, turn },
      }).plan!;
      const [{ front, back }] = twoSided(plan) as [ReturnType<typeof twoSided>[0]];
      const name = { '1+1 front': 'A', '1+1 back': 'B', '3+1 front': 'C', '3+1 back': 'D' } as Record<
        string,
        string
      >;
      const said = (cells: readonly Cell[]) => cells.map((cell) => name[cell.name] ?? cell.name).join(' ');
      const upright = (cells: readonly Cell[]) => (cells[0]!.turn === 180 ? [...cells].reverse() : cells);
      expect([said(front.cells), said(upright(back.cells))]).toEqual(['D 4 1 A', 'B 2 3 C']);
      // A fold at every join, and nowhere else.
      for (const { cells, lines } of [front, back]) {
        const joins = cells.slice(1).map((cell) => cell.trim.x0.toFixed(6));
        expect(lines.filter(({ kind }) => kind === 'fold').map(({ x0 }) => x0.toFixed(6))).toEqual(joins);
        cells.slice(1).forEach((cell, n) => expect(cells[n]!.trim.x1).toBeCloseTo(cell.trim.x0, 6));
      }
      expect(plan.needed.trims.width).toBeCloseTo(4 * A5.width - mm(4), 6);
    },
  );
});

describe('kept pairs', () => {
  const kept: Draft = { kind: 'keep', pages: '4-5', together: true };
  const one: Draft = { kind: 'blank', count: 1, where: { at: 'start' } };
  const found = (drafts: readonly Draft[]) =>
    work(8, drafts).findings.find(({ code }) => code === 'kept-pair-split');

  test('the step that splits a pair is named, and one blank mends it', () => {
    const finding = found([kept, { kind: 'turn', pages: '1', by: 180 }, one])!;
    expect([finding.step, finding.mend?.steps?.length]).toEqual(['s2', 1]);
    expect(found([kept, one, ...(finding.mend!.steps as Draft[])])).toBeUndefined();
    expect(found([kept, { ...one, count: 2 } as Draft])).toBeUndefined();
    expect(found([kept, one, { kind: 'keep', pages: '5', together: false }])).toBeUndefined();
    expect(found([kept, { kind: 'remove', pages: '4' }])).toMatchObject({ lost: true, step: 's1' });
  });

  // By practice: pairs (2,3)(4,5) become (1,2)(3,4) behind a cover; one blank inside each cover restores them.
  test('a cover splits every pair, and the mend is a blank before and behind', () => {
    const cover: Draft[] = [
      { kind: 'keep', pages: 'not 1, last', together: true },
      one,
      { kind: 'blank', count: 1, where: { at: 'end' } },
    ];
    expect(found(cover)).toMatchObject({ pairs: 3, step: 's1' });
    expect(codes(8, [...cover, ...(found(cover)!.mend!.steps as Draft[])])).not.toContain('kept-pair-split');
  });

  test('pages that do not face each other are refused', () => {
    expect(problems(8, { kind: 'keep', pages: '3-4', together: true })).toEqual(['not-facing']);
    expect(problems(8, { kind: 'keep', pages: '1', together: true })).toEqual(['not-facing']);
  });
});

describe('split and join', () => {
  const trimOf = ({ trim }: Page) => [trim.width, trim.height];

  test('a page is cut at its middle, at a place, or into a grid, and shows what it showed there', () => {
    const cut = (more: object, spine: 'left' | 'right' = 'left') =>
      work(1, [{ kind: 'split', pages: '1', columns: 2, rows: 1, gutter: 0, ...more } as Draft], {
        book: boundAt(bookOf('right'), spine),
      }).list.pages;
    const [left, right] = cut({}) as [Page, Page];
    expect([trimOf(left), trimOf(right)]).toEqual([
      [A5.width / 2, A5.height],
      [A5.width / 2, A5.height],
    ]);
    expect(right.art!.place[4]).toBeCloseTo(-A5.width / 2, 9);
    // Nothing of the other half serves as bleed.
    expect(applyToBox(right.art!.place, right.art!.reach).x0).toBeCloseTo(0, 9);
    expect(cut({}, 'right')[0]!.art!.place[4]).toBeCloseTo(-A5.width / 2, 9);
    expect(cut({ at: 100 }).map(trimOf)).toEqual([
      [100, A5.height],
      [A5.width - 100, A5.height],
    ]);
    expect(cut({ gutter: 20 }).map(trimOf)[0]).toEqual([A5.width / 2 - 10, A5.height]);
    expect(cut({ gutter: -20 }).map(trimOf)[1]).toEqual([A5.width / 2 + 10, A5.height]);
    const grid = cut({ columns: 2, rows: 2 });
    expect(grid.map(({ art }) => [art!.place[4] === 0, art!.place[5] === 0])).toEqual([
      [true, false],
      [false, false],
      [true, true],
      [false, true],
    ]);
    for (const bad of [{ at: A5.width + 1 }, { gutter: A5.width }])
      expect(
        problems(1, { kind: 'split', pages: '1', columns: 2, rows: 1, gutter: 0, ...bad } as Draft),
      ).toEqual(['split-outside']);
  });

  test('pages that are cut up and joined again lie where they lay', () => {
    const { list } = work(3, [
      { kind: 'split', pages: 'all', columns: 2, rows: 2, gutter: 0 },
      { kind: 'join', pages: 'all', columns: 2, rows: 2, gap: 0 },
    ]);
    expect(list.pages.map(trimOf)).toEqual(Array.from({ length: 3 }, () => [A5.width, A5.height]));
    for (const page of list.pages) {
      expect(artsOf(page)).toHaveLength(4);
      for (const { place } of artsOf(page))
        place.forEach((entry, i) => expect(entry).toBeCloseTo([1, 0, 0, 1, 0, 0][i]!, 9));
    }
    expect(
      work(5, [{ kind: 'join', pages: 'all', columns: 2, rows: 1, gap: 10 }]).list.pages.map(trimOf)[2],
    ).toEqual([2 * A5.width + 10, A5.height]);
  });
});

describe('back to reading order', () => {
  const spread = { width: 2 * A5.width, height: A5.height };
  const order = (arrangement: object, more: object = {}): Draft =>
    ({ kind: 'reading-order', pages: 'all', arrangement, gutter: 0, ...more }) as Draft;
  /** The scan and the half of it that each page shows. */
  const shown = (list: PageList) =>
    list.pages.map(({ art }) => `${art!.index + 1}${art!.reach.x0 > 1 ? 'r' : 'l'}`);
  const rescued = (count: number, draft: Draft, more: Partial<Docket> = {}) =>
    workOut(docketOf([takeInStep('a'), ...stepsOf([draft])], more), surveys(count, spread));

  // By practice: the raw scans of a stitched 8-page booklet show 8·1, 2·7, 6·3, 4·5.
  test('the raw scans of a stitched 8-page booklet', () => {
    expect(shown(rescued(4, order({ by: 'stitched', scans: 'sheets' })).list)).toEqual([
      '1r',
      '2l',
      '3r',
      '4l',
      '4r',
      '3l',
      '2r',
      '1l',
    ]);
  });

  // By practice: front 5 4 (heads down) over 8 1, back 3 6 (heads down) over 2 7; and the 16-page layout.
  test.each([8, 16] as const)('a signature of %i pages', (pages) => {
    const { list } = rescued(2, order({ by: 'signature', pages }));
    const columns = pages / 4;
    const at = list.pages.map(({ art }) => {
      const { x0, y0 } = art!.reach;
      const [column, row] = [Math.round((x0 / spread.width) * columns), y0 > 1 ? 0 : 1];
      return { scan: art!.index, place: row * columns + column, turned: art!.place[0] < 0 };
    });
    const side = (scan: number) =>
      Array.from(
        { length: pages / 2 },
        (_, place) => at.findIndex((each) => each.scan === scan && each.place === place) + 1,
      );
    expect([side(0), side(1)]).toEqual(
      pages === 8
        ? [
            [5, 4, 8, 1],
            [3, 6, 2, 7],
          ]
        : [
            [5, 12, 9, 8, 4, 13, 16, 1],
            [7, 10, 11, 6, 2, 15, 14, 3],
          ],
    );
    expect(at.filter(({ turned }) => turned).map(({ place }) => place < pages / 4)).toEqual(
      Array(pages / 2).fill(true),
    );
  });

  test('page order, stitched sheets, raw scans, reading order: the identity for 4 to 128 pages, every spine, turn and scan order', () => {
    const turns = fc.constantFrom('short-edge' as const, 'long-edge' as const);
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 32 }),
        fc.constantFrom(...SPINES),
        fc.constantFrom(...SCAN_ORDERS),
        turns,
        fc.boolean(),
        (sheets, spine, scans, turn, withPanel) => {
          const book = boundAt(bookOf('right'), spine);
          const hung = withPanel && spine !== 'head' ? [panel('1')] : [];
          const plan = work(4 * sheets, hung, { book, scheme: { ...DEFAULT_SCHEME, turn } }).plan!;
          expect(readBack(plan, spine, scans)).toEqual(Array.from({ length: 4 * sheets }, (_, n) => n + 1));
        },
      ),
    );
  });

  test('turned scans, a cut beside the middle, an own list', () => {
    const { list } = rescued(
      2,
      order({ by: 'stitched', scans: 'sheets' }, { turned: [{ scans: [2], by: 180 }], at: 400 }),
    );
    expect(shown(list)).toEqual(['1r', '2r', '2l', '1l']);
    expect(list.pages.map(({ trim }) => Math.round(trim.width))).toEqual([439, 400, 439, 400]);
    expect(shown(rescued(2, order({ by: 'own', columns: 2, rows: 1, order: [3, 1, 2, 4] })).list)).toEqual([
      '2l',
      '1l',
      '1r',
      '2r',
    ]);
  });

  test('what cannot be put in order is refused, and the list stays', () => {
    const own = (list: number[]) => order({ by: 'own', columns: 2, rows: 1, order: list });
    for (const [draft, code] of [
      [order({ by: 'stitched', scans: 'sheets' }), 'scans-odd'],
      [order({ by: 'signature', pages: 8 }), 'signature-count'],
      [own([1, 2, 3, 4, 5, 5]), 'order-repeats'],
      [own([1, 2, 3, 4, 5]), 'order-gaps'],
      [own([1, 2, 3, 4, 5, 7]), 'order-outside'],
      [order({ by: 'spreads' }, { gutter: 900 }), 'split-outside'],
    ] as const) {
      const result = rescued(3, draft);
      expect(result.replay.failed.map(({ problem }) => problem.code)).toEqual([code]);
      expect(result.list.pages).toHaveLength(3);
    }
  });
});

describe('working the order out', () => {
  const spread = { width: 2 * A5.width, height: A5.height };
  type Seen = readonly (number | undefined)[];
  /** Scans whose halves carry numbers at their foot; a scan may lie turned. */
  const scansOf = (sides: readonly Seen[], upsideDown: readonly number[] = []) =>
    survey(
      sides.map((numbers, n) => {
        const over = upsideDown.includes(n);
        const seen = numbers.flatMap((value, half) => {
          const x = (half + 0.5) * A5.width;
          return value === undefined
            ? []
            : [
                {
                  value,
                  x: over ? spread.width - x : x,
                  y: over ? A5.height - 20 : 20,
                  turn: over ? (180 as const) : (0 as const),
                },
              ];
        });
        return surveyPage(spread, { drawn: { numbers: seen } });
      }),
    );
  const propose = (file: ReturnType<typeof scansOf>) => {
    const { list } = workOut(docketOf([takeInStep('a')]), { [hashOf('a')]: file });
    return workOutOrder(list.pages, { [hashOf('a')]: file }, 'left')!;
  };
  const done = (
    file: ReturnType<typeof scansOf>,
    of: Pick<ReturnType<typeof propose>, 'arrangement'> & Partial<ReturnType<typeof propose>>,
    how: { byNumbers?: true } = {},
  ) =>
    workOut(
      docketOf([
        takeInStep('a'),
        {
          id: 'o',
          kind: 'reading-order',
          pages: 'all',
          gutter: 0,
          arrangement: of.arrangement,
          ...(of.turned ? { turned: of.turned } : {}),
          ...how,
        },
      ]),
      { [hashOf('a')]: file },
    );
  const booklet: Seen[] = [
    [8, 1],
    [2, 7],
    [6, 3],
    [4, 5],
  ];

  test('numbers tell the order, the turns and how many agree', () => {
    expect(propose(scansOf(booklet, [2]))).toMatchObject({
      arrangement: { by: 'stitched', scans: 'sheets' },
      turned: [{ scans: [3], by: 180 }],
      agree: { length: 8 },
      differ: [],
      from: 'numbers',
    });
    const reversed = [booklet[0]!, booklet[2]!, booklet[3]!, booklet[1]!];
    expect(propose(scansOf(reversed)).arrangement).toEqual({
      by: 'stitched',
      scans: 'fronts-backs-reversed',
    });
    // An unnumbered cover, and numbers that begin behind it.
    expect(
      propose(
        scansOf([
          [undefined, undefined],
          [undefined, 5],
          [4, 1],
          [2, 3],
        ]),
      ),
    ).toMatchObject({ arrangement: { by: 'stitched' }, offset: -2, unread: { length: 3 } });
    expect(
      propose(
        scansOf([
          [8, 1],
          [2, 7],
          [6, 33],
          [4, 5],
        ]),
      ),
    ).toMatchObject({ differ: [3], agree: { length: 7 } });
  });

  test('what neither a number nor a word tells stops a recipe where scans are turned; words tell', () => {
    const covers: Seen[] = [
      [undefined, undefined],
      [2, 7],
      [6, 3],
      [4, 5],
    ];
    const stops = (file: ReturnType<typeof scansOf>) =>
      done(file, { arrangement: { by: 'stitched', scans: 'sheets' } }, { byNumbers: true }).findings.flatMap(
        (finding) => (finding.code === 'scan-unsure' ? [finding.level, ...finding.scans] : []),
      );
    expect(stops(scansOf(covers))).toEqual([]);
    expect(stops(scansOf(covers, [2]))).toEqual(['stop', 1]);
    const read = scansOf(covers, [0, 2]);
    read.pages[0]!.drawn = { leans: 180 };
    expect(stops(read)).toEqual([]);
    expect(propose(read).turned).toEqual([{ scans: [1, 3], by: 180 }]);
  });

  test('without numbers the number and the shape of the scans decide', () => {
    expect(propose(scansOf([[], [], [], []]))).toMatchObject({
      arrangement: { by: 'stitched', scans: 'sheets' },
      from: 'shape',
    });
    expect(propose(scansOf([[], [], []])).arrangement).toEqual({ by: 'spreads' });
  });

  test('a sheet that is missing or there twice is found', () => {
    const missing = scansOf([
      [12, 1],
      [2, 11],
      [8, 5],
      [6, 7],
    ]);
    const found = (file: ReturnType<typeof scansOf>) => done(file, propose(file)).findings;
    expect(found(missing).find(({ code }) => code === 'sheet-missing')).toMatchObject({
      numbers: [3, 4, 9, 10],
      step: 'o',
    });
    const twice = scansOf([...booklet, [6, 3], [4, 5]]);
    expect(found(twice).find(({ code }) => code === 'sheet-doubled')).toMatchObject({
      numbers: [3, 4, 5, 6],
    });
    expect(found(scansOf(booklet)).map(({ code }) => code)).not.toContain('sheet-missing');
    // One number misread is no sheet that is missing; where it cannot be doubted, it is said as what it is.
    const slip = found(scansOf([booklet[0]!, booklet[1]!, [6, 33], booklet[3]!])).map(({ code }) => code);
    expect(slip).toContain('order-differs');
    expect(slip).not.toContain('sheet-missing');
  });
});

test('a step cannot be applied to its own result twice without new ids', () => {
  const { list } = work(4, [{ kind: 'split', pages: 'all', columns: 2, rows: 1, gutter: 0 }]);
  const again = applyStep(
    list,
    { id: 'z', kind: 'split', pages: 'all', columns: 1, rows: 2, gutter: 0 },
    { surveys: surveys(4), formats: [] },
  );
  expect(new Set(again.pages.map(({ id }) => id)).size).toBe(16);
});
