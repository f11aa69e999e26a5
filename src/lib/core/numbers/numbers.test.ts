import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { StepDraft as Draft } from '../docket/steps';
import { workOut } from '../checks';
import type { Docket } from '../docket/docket';
import { graphicOf, inItsFile } from '../docket/steps/graphic';
import { DIE_LINE } from '../docket/steps/overlay';
import { applyToPoint } from '../measure/matrix';
import { mm } from '../measure/unit';
import { faceLabels, labelsOf } from './labels';
import { leafOf } from '../pages/leaves';
import { backSide, facesOf, frontSide, sideAt, spineAt } from '../pages/page';
import { SPINES, type Page, type PageList } from '../model/page';
import { panelsOf } from '../pages/panels';
import { expandLabels } from '../pages/pageLabels';
import { PLAIN_LINES } from '../model/lines';
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
} from '../../../../tests/makers';
import { placeBeside, placeLaid } from './placeLaid';
import { placeLines } from './placeLines';
import { fillPattern, PatternError, readPattern } from './pattern';
import type { Values } from '../model/lines';
import { numberedFrom, stretchesOf } from './series';
import { setNumber } from './set';

const surveysOf = (count: number) => ({ [hashOf('a')]: plainSurvey(count) });
const work = (count: number, drafts: readonly Draft[], more: Partial<Docket> = {}) =>
  workOut(docketOf([takeInStep('a'), ...stepsOf(drafts)], more), surveysOf(count));
const SET = { ...PLAIN_LINES, x: mm(10), y: mm(8) };
const folio = (pages: string, more: object = {}): Draft =>
  ({ kind: 'folio', pages, ...SET, edge: 'foot', across: 'outer', text: '{page}', ...more }) as Draft;
const numbers = (...series: object[]): Draft => ({ kind: 'numbers', series }) as Draft;
/** What is printed on each page. */
const printed = (list: PageList): string[] =>
  facesOf(list).map((page, index) =>
    textsOn(page, index, list)
      .map(({ item }) => item.text)
      .join(' | '),
  );
const textsOn = (page: Page, index: number, list: PageList) =>
  (page.matter ?? []).flatMap((matter) =>
    matter.hidden ? [] : placeLines(matter, page, sideAt(index, list)).texts,
  );
const problems = (count: number, draft: Draft) =>
  work(count, [draft]).replay.failed.map(({ problem }) => problem.code);

describe('number series', () => {
  test('the report: cover and its back unnumbered, contents i and ii, body from 1 (by practice)', () => {
    const { list } = work(10, [
      numbers({ from: '3', style: 'r', start: 1 }, { from: '5', style: 'D', start: 1 }),
    ]);
    expect(labelsOf(list)).toEqual(['', '', 'i', 'ii', '1', '2', '3', '4', '5', '6']);
  });

  test('two fields make it: page 3 is number i, page 5 is number 1', () => {
    const { list } = work(10, []);
    const first = numberedFrom(list, list.pages[2]!.id, 'i')!;
    const then = work(10, [{ kind: 'numbers', series: first }]).list;
    const both = numberedFrom(then, then.pages[4]!.id, '1')!;
    expect(labelsOf(work(10, [{ kind: 'numbers', series: both }]).list)).toEqual([
      '',
      '',
      'i',
      'ii',
      '1',
      '2',
      '3',
      '4',
      '5',
      '6',
    ]);
    expect(numberedFrom(list, list.pages[0]!.id, 'Annex')).toBeUndefined();
  });

  // ISO 32000-1, 12.4.2: /Nums [0 <</S/r>> 4 <</S/D>> 7 <</S/D/P(A-)/St 8>>].
  test("the standard's own example, by series and as page labels", () => {
    const labels = ['i', 'ii', 'iii', 'iv', '1', '2', '3', 'A-8', 'A-9'];
    const { list } = work(9, [
      numbers(
        { from: '1', style: 'r', start: 1 },
        { from: '5', style: 'D', start: 1 },
        { from: '8', style: 'D', start: 8, prefix: 'A-' },
      ),
    ]);
    expect(labelsOf(list)).toEqual(labels);
    const runs = [
      { from: 0, style: 'r' as const, prefix: '', start: 1 },
      { from: 4, style: 'D' as const, prefix: '', start: 1 },
      { from: 7, style: 'D' as const, prefix: 'A-', start: 8 },
    ];
    expect(expandLabels(runs, 9)).toEqual(labels);
  });

  test.each<[string, Draft[], string[]]>([
    [
      'one goes on from the one before, none counts silently',
      [numbers({ from: '1', style: 'D', start: 1 }, { from: '3', style: 'none' }, { from: '4', style: 'A' })],
      ['1', '2', '', 'D', 'E', 'F'],
    ],
    [
      'a suffix stands behind',
      [numbers({ from: '1', style: 'D', start: 9, prefix: 'S', suffix: '*' })],
      ['S9*', 'S10*', 'S11*', 'S12*', 'S13*', 'S14*'],
    ],
    [
      'blanks are counted',
      [
        { kind: 'blank', count: 1, where: { at: 'after', pages: '2' } },
        numbers({ from: '1', style: 'D', start: 1 }),
      ],
      ['1', '2', '3', '4', '5', '6', '7'],
    ],
    [
      'or skipped',
      [
        { kind: 'blank', count: 1, where: { at: 'after', pages: '2' } },
        numbers({ from: '1', style: 'D', start: 1, skipBlanks: true }),
      ],
      ['1', '2', '', '3', '4', '5', '6'],
    ],
    [
      'a cover put in front later moves no number',
      [numbers({ from: '1', style: 'D', start: 1 }), { kind: 'blank', count: 2, where: { at: 'start' } }],
      ['', '', '1', '2', '3', '4', '5', '6'],
    ],
    [
      'a first page that is taken out leaves its series to the next',
      [
        numbers({ from: '1', style: 'r', start: 1 }, { from: '3', style: 'D', start: 1 }),
        { kind: 'remove', pages: '3' },
      ],
      ['i', 'ii', '1', '2', '3'],
    ],
    [
      'or that is moved away',
      [
        numbers({ from: '1', style: 'r', start: 1 }, { from: '3', style: 'D', start: 1 }),
        { kind: 'move', pages: '3', where: { at: 'end' } },
      ],
      ['i', 'ii', '1', '2', '3', '4'],
    ],
  ])('%s', (_, drafts, labels) => {
    expect(labelsOf(work(6, drafts).list)).toEqual(labels);
  });

  test('panels never move a number, unless their series counts them', () => {
    const hung = { kind: 'panel', pages: '3', count: 1, allowance: mm(2), folds: 'back' } as Draft;
    const labels = (more: object) => [
      ...faceLabels(work(6, [hung, numbers({ from: '1', style: 'D', start: 1, ...more })]).list).values(),
    ];
    expect(labels({}).slice(0, 6)).toEqual(['1', '2', '3', '4', '5', '6']);
    expect([...labels({})].sort()).toEqual(['1', '2', '3', '3a', '3b', '4', '5', '6']);
    const { list } = work(6, [hung, numbers({ from: '1', style: 'D', start: 1, panels: true })]);
    expect(labelsOf(list)).toEqual(['1', '2', '3', '6', '7', '8']);
  });

  test('series cover each page exactly once, wherever they begin and whatever is done after', () => {
    const begins = fc.uniqueArray(fc.integer({ min: 1, max: 12 }), { minLength: 1, maxLength: 5 });
    const later = fc.constantFrom<Draft>(
      { kind: 'remove', pages: '2-3' },
      { kind: 'move', pages: '1, 5', where: { at: 'end' } },
      { kind: 'blank', count: 3, where: { at: 'after', pages: '4' } },
      { kind: 'split', pages: '2-4', columns: 2, rows: 1, gutter: 0 },
    );
    fc.assert(
      fc.property(begins, fc.array(later, { maxLength: 3 }), (from, drafts) => {
        const { list } = work(12, [
          numbers(...from.map((page) => ({ from: String(page), style: 'D', start: page }))),
          ...drafts,
        ]);
        const stretches = stretchesOf(list);
        expect(stretches.flatMap(({ from: a, to }) => list.pages.slice(a, to))).toEqual(list.pages);
        expect(stretches.filter(({ series }) => series)).toHaveLength(list.series!.length);
      }),
    );
  });

  test.each<[string, object[], string]>([
    [
      'two that begin at one page',
      [
        { from: '3', style: 'D' },
        { from: '3-5', style: 'r' },
      ],
      'series-overlap',
    ],
    ['one that begins at no page', [{ from: '77', style: 'D' }], 'no-such-page'],
  ])('refused: %s', (_, series, code) => {
    expect(problems(6, numbers(...series))).toEqual([code]);
  });
});

describe('folios', () => {
  test('at the outer edge: right on 1, left on 2 (by practice), aligned there', () => {
    const { list } = work(4, [folio('all')]);
    const [first, second] = [0, 1].map((index) => textsOn(list.pages[index]!, index, list)[0]!);
    expect([first!.item.align, second!.item.align]).toEqual(['right', 'left']);
    expect(first!.box.x1).toBeCloseTo(A5.width - mm(10), 6);
    expect(second!.box.x0).toBeCloseTo(mm(10), 6);
    // Its base line stands 8 mm above the trim's foot.
    expect(first!.item.matrix[5]).toBeCloseTo(mm(8), 6);
  });

  test('the side comes from the leaf: with the first page on the left, 1 is at the left', () => {
    const { list } = work(4, [folio('all')], { book: bookOf('left') });
    expect(textsOn(list.pages[0]!, 0, list)[0]!.item.align).toBe('left');
  });

  const lists = fc.record({
    spine: fc.constantFrom(...SPINES),
    begins: fc.constantFrom('front' as const, 'back' as const),
    count: fc.integer({ min: 2, max: 9 }),
    blanks: fc.integer({ min: 0, max: 3 }),
    hung: fc.boolean(),
    across: fc.constantFrom('outer' as const, 'centre' as const),
    edge: fc.constantFrom('head' as const, 'foot' as const),
    from: fc.constantFrom('trim' as const, 'margin' as const),
    x: fc.double({ min: 0, max: 60, noNaN: true }),
    y: fc.double({ min: 0, max: 60, noNaN: true }),
  });
  test('a folio is at the edge that was named, an outer one never in the spine half, and the one on its back falls on it', () => {
    fc.assert(
      fc.property(lists, ({ spine, begins, count, blanks, hung, across, edge, from, x, y }) => {
        const first = begins === 'front' ? frontSide({ spine }) : backSide({ spine });
        const on = hung && spine !== 'head' ? 'all, panels' : 'all';
        const margins = {
          kind: 'margins',
          pages: on,
          head: 40,
          foot: 50,
          spine: 60,
          fore: 30,
          columns: 1,
          gap: 0,
        } as Draft;
        const drafts: Draft[] = [
          ...(blanks ? [{ kind: 'blank', count: blanks, where: { at: 'start' } } as Draft] : []),
          ...(hung && spine !== 'head'
            ? [{ kind: 'panel', pages: '2', count: 1, allowance: mm(2), folds: 'back' } as Draft]
            : []),
          margins,
          // As wide a text on every page, so that only its place is judged.
          folio(on, {
            text: 'M',
            across,
            edge,
            from,
            x,
            y,
            blanks: true,
          }),
        ];
        const { list, replay } = work(count, drafts, { book: bookOf(first, { spine }) });
        expect(replay.failed).toEqual([]);
        const at = (index: number) => textsOn(list.pages[index]!, index, list)[0]!.box;
        for (const { front, back } of panelsOf(list)) {
          const [over, under] = [front, back].map(
            (face) => textsOn(face, facesOf(list).indexOf(face), list)[0]!.box,
          );
          expect(Math.abs(front.trim.width - under!.x1 - over!.x0)).toBeLessThan(mm(0.01));
          expect(Math.abs(under!.y0 - over!.y0)).toBeLessThan(mm(0.01));
        }
        list.pages.forEach((page, index) => {
          const side = sideAt(index, list);
          const box = at(index);
          const room = {
            left: box.x0,
            right: page.trim.width - box.x1,
            foot: box.y0,
            head: page.trim.height - box.y1,
          };
          if (across === 'outer' && spine !== 'head')
            expect(room[spineAt(side)]).toBeGreaterThan(page.trim.width / 2);
          // Head and foot are the page's own, as it is read.
          expect(room[edge]).toBeLessThan(room[edge === 'head' ? 'foot' : 'head']);
          const { leaf, face } = leafOf(index, list.book);
          if (face !== 'front' || index + 1 >= list.pages.length) return;
          expect(leafOf(index + 1, list.book).leaf).toBe(leaf);
          const back = at(index + 1);
          // Turned over its spine, what is left comes to be right; head over foot, it stays where it is.
          const through =
            spine === 'head'
              ? back
              : { ...back, x0: page.trim.width - back.x1, x1: page.trim.width - back.x0 };
          // Margins of such a book are other at the head of a page than at the head of its back.
          const same = spine === 'head' && from === 'margin' ? ['x0', 'x1'] : ['x0', 'x1', 'y0', 'y1'];
          for (const edge of same as ('x0' | 'x1' | 'y0' | 'y1')[])
            expect(Math.abs(through[edge] - box[edge])).toBeLessThan(mm(0.01));
        });
      }),
    );
  });

  test('where not: by selection, on blanks, on first pages, on single pages; numbering goes on', () => {
    const series = numbers({ from: '3', style: 'D', start: 1 });
    const blank = { kind: 'blank', count: 1, where: { at: 'after', pages: '4' } } as Draft;
    const on = (more: object, pages = 'all') => printed(work(6, [blank, series, folio(pages, more)]).list);
    expect(on({})).toEqual(['', '', '1', '2', '', '4', '5']);
    expect(on({ blanks: true })).toEqual(['', '', '1', '2', '3', '4', '5']);
    expect(on({ notFirst: true })).toEqual(['', '', '', '2', '', '4', '5']);
    expect(on({}, 'not 4, last')).toEqual(['', '', '1', '', '', '4', '']);
    const { list } = work(6, [blank, series]);
    expect(on({ away: [list.pages[3]!.id] })).toEqual(['', '', '1', '', '', '4', '5']);
  });

  test('they scale with the content where that is asked for, else keep their size', () => {
    const size = (scaleLines: boolean) => {
      const { list } = work(2, [
        folio('all'),
        {
          kind: 'trim',
          pages: 'all',
          width: A5.width * 2,
          height: A5.height * 2,
          content: 'fit',
          fixed: { x: 'centre', y: 'centre' },
          scaleLines,
        },
      ]);
      return textsOn(list.pages[0]!, 0, list)[0]!;
    };
    expect([size(false).item.size, size(true).item.size]).toEqual([9, 18]);
    expect(size(true).box.x1).toBeCloseTo(2 * A5.width - mm(20), 6);
    expect(size(false).box.x1).toBeCloseTo(2 * A5.width - mm(10), 6);
  });
});

describe('patterns', () => {
  const values: Values = {
    page: '3',
    pages: '9',
    label: 'A-3',
    series: 'body',
    title: 'Moor',
    file: 'x',
    date: '',
    piece: '',
    number: '007',
  };
  test.each([
    ['{page} of {pages}', '3 of 9'],
    ['{{{label}}}', '{A-3}'],
    ['{ TITLE }: {series}', 'Moor: body'],
    ['{date}', undefined],
  ])('%s', (pattern, text) => expect(fillPattern(pattern, values)).toBe(text));

  test('one that asks for a number says nothing on a page without one', () => {
    expect(fillPattern('Page {page}', { ...values, page: '' })).toBeUndefined();
  });

  test.each([
    ['{pagee} of {pages}', 'unknown-token', 'pagee', 0],
    ['  ', 'empty-pattern', '', 0],
    ['Page {page', 'open-brace', '{page', 5],
    ['a } b', 'open-brace', '} b', 2],
  ])('refused: %s', (pattern, code, seen, at) => {
    expect(() => readPattern(pattern)).toThrow(new PatternError(code as 'open-brace', seen, at));
    expect(problems(4, folio('all', { text: pattern }))).toEqual([code]);
  });
});

describe('running lines', () => {
  const running = (texts: object[], more: object = {}): Draft =>
    ({ kind: 'running', pages: 'all', ...SET, texts, ...more }) as Draft;

  test('other words on left pages and on first pages of series, in their series alone', () => {
    const texts = [{ edge: 'head', across: 'outer', text: '{series}', left: '{title}', first: '' }];
    const list = work(6, [
      numbers(
        { from: '1', style: 'r', start: 1, name: 'front' },
        { from: '3', style: 'D', start: 1, name: 'body' },
      ),
      running(texts, { pages: 'series:body' }),
    ]).list;
    expect(printed(list)).toEqual(['', '', '', 'Test', 'body', 'Test']);
  });

  test('a rule stands off its line, from side to side, and the date is said in words', () => {
    const { list } = work(2, [
      running([{ edge: 'head', across: 'inner', text: '{date}' }], {
        date: '2026-11-25',
        rule: { at: 'under', width: 1, gap: 4 },
      }),
    ]);
    const { texts, rules } = placeLines(list.pages[0]!.matter![0]!, list.pages[0]!, 'right');
    expect(texts[0]!.item.text).toBe('25 November 2026');
    expect(rules).toMatchObject([{ x0: mm(10), width: 1, y0: texts[0]!.item.matrix[5] - 4.5 }]);
    expect(rules[0]!.x1).toBeCloseTo(A5.width - mm(10), 6);
  });

  test('two at one place are refused', () => {
    const twice = { edge: 'head', across: 'outer', text: 'x' };
    expect(problems(2, running([twice, twice]))).toEqual(['place-taken']);
  });
});

test.each([
  [{ start: 1, by: 1, digits: 3 }, 49, '050'],
  [{ start: 1000, by: 5, digits: 6, prefix: 'LR-' }, 2, 'LR-001010'],
  [{ start: 10, by: -1, digits: 2 }, 9, '01'],
])('a numbered set %j: its number %i is %s', (how, nth, number) => expect(setNumber(nth, how)).toBe(number));

describe('what is put on pages fits there', () => {
  const found = (drafts: Draft[], more: Partial<Docket> = {}) =>
    work(4, drafts, more).findings.filter(({ stage }) => stage === 'numbers');

  test.each<[string, Draft[], object[]]>([
    ['inside the safe area nothing is said', [folio('all')], []],
    ['over the trim', [folio('2', { y: -20 })], [{ code: 'lines-near-trim', level: 'stop' }]],
    ['in the spine', [folio('all', { across: 'inner', x: 2 })], [{ code: 'lines-in-spine', level: 'look' }]],
    [
      'two at one place',
      [folio('all'), folio('3-4', { text: 'Page {page}' })],
      [{ code: 'lines-meet', step: 's1' }],
    ],
    [
      'letters that the face lacks, and one that has them',
      [folio('all', { text: 'Стр. {page}' })],
      [
        {
          code: 'glyph-missing',
          chars: ['С', 'т', 'р'],
          mend: { code: 'other-face', change: [{ id: 's0', face: 'DejaVu Sans' }] },
        },
      ],
    ],
    [
      'at the right of both faces',
      [folio('all', { across: 'right' })],
      [{ code: 'folio-fixed-side', mend: { change: [{ across: 'outer' }] } }],
    ],
  ])('%s', (_, drafts, findings) => {
    expect(found(drafts)).toMatchObject(findings);
  });

  test('what stands on the page already', () => {
    const box = { x0: A5.width - mm(14), x1: A5.width - mm(8), y0: mm(7), y1: mm(12) };
    const drawn = { objects: [{ kind: 'text' as const, box }] };
    const { findings } = workOut(docketOf([takeInStep('a'), ...stepsOf([folio('all')])]), {
      [hashOf('a')]: survey([surveyPage(A5, { drawn }), surveyPage(A5, { drawn }), surveyPage()]),
    });
    // On the left page the folio is at the other side.
    expect(findings.filter(({ code }) => code === 'lines-on-art')).toMatchObject([
      { pages: [expect.stringContaining(':1')] },
    ]);
  });
});

describe('stamps and overlays', () => {
  test('a die line lies on every other page at its real size, and leaves the list in the same step', () => {
    const { list } = work(51, [DIE_LINE]);
    expect(list.pages).toHaveLength(50);
    for (const page of list.pages) {
      expect(page.laid).toMatchObject([
        { arts: [{ index: 50 }], layer: { name: 'Cutting', purpose: 'cutting' } },
      ]);
      expect(placeLaid(page.laid![0]!, page, 'right')).toEqual([1, 0, 0, 1, 0, 0]);
    }
  });

  test('one larger than its pages is found, and a cutting line that knocks out, with its mend', () => {
    const large = survey([surveyPage(), surveyPage({ width: A5.width + 9, height: A5.height })]);
    const { overprint: _, takeOut: _t, ...knocking } = DIE_LINE;
    const docket = docketOf([takeInStep('a'), ...stepsOf([knocking])]);
    const { findings } = workOut(docket, { [hashOf('a')]: large });
    expect(findings.filter(({ step }) => step === 's0')).toMatchObject([
      { code: 'overlay-larger', overlay: { width: A5.width + 9 }, page: A5, level: 'stop' },
      { code: 'knocks-out', mend: { change: [{ id: 's0', overprint: true }] } },
    ]);
  });

  test('beside an object: done once, it stands as far from its mirrored twin', () => {
    const object = { x0: 300, x1: 320, y0: 20, y1: 30 };
    const size = { width: 16, height: 8 };
    const page = {
      id: 'p',
      trim: { width: 400, height: 600 },
      bleed: { by: 'edge', head: 0, foot: 0, spine: 0, fore: 0 },
    } as Page;
    for (const at of ['outer', 'inner', 'head', 'foot'] as const) {
      const placing = placeBeside(object, { at, gap: 5 }, size, page, 'right');
      const laid = { step: 's', arts: [], size, placing, scale: [1, 1] as const };
      const [right, left] = (['right', 'left'] as const).map((side) => placeLaid(laid, page, side));
      const x = { outer: 325, inner: 279, head: 302, foot: 302 }[at];
      expect([right![4], right![5]]).toEqual([x, { outer: 21, inner: 21, head: 35, foot: 7 }[at]]);
      expect(left![4]).toBeCloseTo(400 - x - 16, 9);
      expect(left![5]).toBe(right![5]);
    }
  });

  test('beside an object in a book bound at the head: its twin is in the same place of the page behind it', () => {
    const page = { trim: { width: 400, height: 600 } } as Page;
    const object = { x0: 300, x1: 320, y0: 20, y1: 30 };
    const size = { width: 16, height: 8 };
    for (const at of ['outer', 'inner', 'head', 'foot'] as const) {
      const placing = placeBeside(object, { at, gap: 5 }, size, page, 'lower');
      const laid = { step: 's', arts: [], size, placing, scale: [1, 1] as const };
      const there = { outer: [325, 21], inner: [279, 21], head: [302, 35], foot: [302, 7] }[at];
      for (const side of ['lower', 'upper'] as const)
        expect(placeLaid(laid, page, side).slice(4)).toEqual(there.map((of) => expect.closeTo(of, 9)));
    }
  });

  test('an object on a page is the same area of the file that the page came from, whatever was cut off or made larger since', () => {
    const area = { x0: 30, y0: 40, x1: 90, y1: 65 };
    const steps = [
      { pages: '1', kind: 'crop', cut: { by: 'side', head: 10, foot: 20, left: 5, right: 7 } },
      { kind: 'trim', pages: '1', width: 800, height: 1100, content: 'fit', fixed: { x: 'left', y: 'foot' } },
    ] as Draft[];
    for (const [done, scale] of [
      [steps.slice(0, 1), 1],
      [steps, undefined],
    ] as const) {
      const { list } = work(3, [...done]);
      const onPage = { page: '1', area };
      const kept = inItsFile(onPage, list, surveysOf(3), () => 'a.pdf')!;
      expect(kept.scale).toBeCloseTo(scale ?? 1 / list.pages[0]!.art!.place[0], 9);
      const [there, here] = [
        graphicOf(kept.graphic, list, surveysOf(3)),
        graphicOf(onPage, list, surveysOf(3)),
      ];
      expect(there.size.width).toBeCloseTo(here.size.width * kept.scale, 9);
      // A point of the art lies at the same place of the object.
      const { x, y } = applyToPoint(there.arts[0]!.place, 77, 99);
      const { x: X, y: Y } = applyToPoint(here.arts[0]!.place, 77, 99);
      expect([x, y]).toEqual([expect.closeTo(X * kept.scale, 9), expect.closeTo(Y * kept.scale, 9)]);
    }
    const { list } = work(3, [{ kind: 'turn', pages: '1', by: 90 } as Draft]);
    expect(inItsFile({ page: '1', area }, list, surveysOf(3), () => 'a.pdf')).toBeUndefined();
  });

  test('a turned stamp stands with its bounds at its corner', () => {
    const { list } = work(3, [
      {
        kind: 'stamp',
        pages: '1',
        graphic: { page: '3', area: { x0: 0, y0: 0, x1: 40, y1: 20 } },
        size: { by: 'width', width: 80 },
        placing: { box: 'trim', x: 'right', y: 'head', dx: 10, dy: 10, turn: 90 },
        opacity: 0.5,
      } as Draft,
    ]);
    const [laid] = list.pages[0]!.laid!;
    expect(laid!.scale).toEqual([2, 2]);
    const [a, b, c, d, e, f] = placeLaid(laid!, list.pages[0]!, 'right');
    expect([a, b, c, d]).toEqual([0, -2, 2, 0]);
    // Clockwise, its foot comes to the left: the box is 40 wide and 80 high.
    expect([e, f]).toEqual([A5.width - 50, A5.height - 10].map((at) => expect.closeTo(at, 9)));
  });

  test('refusals say what is wrong', () => {
    const over = (graphic: object, pages = 'all') => problems(3, { ...DIE_LINE, pages, graphic } as Draft);
    expect(over({ page: '2-3' })).toEqual(['one-graphic']);
    expect(over({ page: '2' }, '2')).toEqual(['nothing-under']);
    expect(over({ source: hashOf('z'), name: 'gone.pdf', index: 0 })).toEqual(['source-missing']);
    expect(over({ page: '1', area: { x0: -9, y0: -9, x1: -1, y1: -1 } })).toEqual(['area-empty']);
    const hung = {
      kind: 'panel',
      pages: '1',
      count: 1,
      show: '4-5',
      allowance: mm(2),
      folds: 'back',
    } as Draft;
    const failed = work(5, [hung, { ...DIE_LINE, graphic: { page: '1+1 front' } }]).replay.failed;
    expect(failed.map(({ problem }) => problem.code)).toEqual(['panel-stays']);
  });
});
