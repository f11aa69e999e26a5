import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { A5, docketOf, hashOf, plainSurvey, stepsOf, surveyPage, takeInStep } from '../../../../tests/makers';
import { workOut } from '../checks';
import { entryAt, firstOf } from '../entries';
import { sizeBox } from '../measure/box';
import { compose, scale, translate, turnBack } from '../measure/matrix';
import { mm } from '../measure/unit';
import type { Draw, Written, WrittenPage } from '../model/written';
import type { Survey } from '../model/survey';
import type { StepDraft } from '../docket/steps';
import { docketSchema, type Docket } from '../docket/docket';
import { DIE_LINE } from '../docket/steps/overlay';
import { PLAIN_SCHEMES } from '../sheets/schemes';
import { disagreements } from './agree';
import { askedOf, type Output } from './outputs';
import { fileNames, safeName, type NameValues } from './names';
import { partsOf, possibleKinds } from './outputs';
import type { Part } from './parts';
import type { OutputOf } from './outputs';
import type { PressTurn } from './machines';
import type { Split } from './split';
import { cutsOf, plannedTurn, pressMistake, pressSides } from './standIns';

const work = (
  count: number,
  steps: StepDraft[] = [],
  bookmarks: [title: string, level: number, page: number][] = [],
) =>
  workOut(docketOf([takeInStep('a'), ...stepsOf(steps)]), {
    [hashOf('a')]: {
      ...plainSurvey(count),
      bookmarks: bookmarks.map(([title, level, page]) => ({ title, level, page })),
    },
  });
const parts = (from: ReturnType<typeof work>, split: Split, more: Partial<OutputOf<'pages'>> = {}) =>
  partsOf(from, { kind: 'pages', crop: 'trim', split, ...more });
const said = (given: Part[]) => given.map(({ name, from, to }) => `${name}: ${from}-${to}`);

describe('parts', () => {
  test('every n pages: 40 by 10 gives four files of 10; what is left is the last', () => {
    expect(said(parts(work(40), { by: 'every', count: 10 }))).toEqual([
      '1: 1-10',
      '2: 11-20',
      '3: 21-30',
      '4: 31-40',
    ]);
    expect(said(parts(work(23), { by: 'every', count: 10 })).at(-1)).toBe('3: 21-23');
    expect(said(parts(work(40), { by: 'every', count: 3 }, { pages: '11-16' }))).toEqual([
      '1: 11-13',
      '2: 14-16',
    ]);
  });

  test('at bookmarks of a level, by the page that they lead to now; what comes before the first is a part too', () => {
    const marks: [string, number, number][] = [
      ['One', 0, 2],
      ['deeper', 1, 3],
      ['Two', 0, 6],
      ['Gone', 0, 9],
    ];
    const moved: StepDraft[] = [
      { kind: 'remove', pages: '10' },
      { kind: 'blank', count: 1, where: { at: 'start' }, like: 'neighbour' } as unknown as StepDraft,
    ];
    expect(said(parts(work(10, [], marks), { by: 'bookmarks', level: 0 }))).toEqual([
      '1: 1-2',
      'One: 3-6',
      'Two: 7-9',
      'Gone: 10-10',
    ]);
    expect(said(parts(work(10, moved.slice(0, 1), marks), { by: 'bookmarks', level: 0 }))).toEqual([
      '1: 1-2',
      'One: 3-6',
      'Two: 7-9',
    ]);
    expect(said(parts(work(10, [], marks), { by: 'bookmarks', level: 1 }))).toEqual([
      '1: 1-3',
      'deeper: 4-10',
    ]);
    expect(() => parts(work(10, [], marks), { by: 'bookmarks', level: 2 })).toThrow('no-bookmarks');
  });

  test('at series, by pieces, at places of one’s own; each refuses what is not there', () => {
    const numbered = work(10, [
      {
        kind: 'numbers',
        series: [
          { from: '1', style: 'none', name: 'cover' },
          { from: '3', style: 'r', start: 1 },
          { from: '5', style: 'D', start: 1, name: 'body' },
        ],
      } as unknown as StepDraft,
    ]);
    expect(said(parts(numbered, { by: 'series' }))).toEqual(['cover: 1-2', '2: 3-4', 'body: 5-10']);
    expect(said(parts(numbered, { by: 'series' }, { pages: '2, 6-10' }))).toEqual([
      'cover: 2-2',
      'body: 6-10',
    ]);
    const pieces = work(5, [
      { kind: 'piece', pages: '1, 4', name: 'slip', quantity: 10 },
      { kind: 'piece', pages: '2', name: 'card', quantity: 5 },
    ]);
    expect(parts(pieces, { by: 'pieces' }).map(({ name, pages: of }) => [name, of])).toEqual([
      ['slip', [0, 3]],
      ['card', [1]],
      ['rest', [2, 4]],
    ]);
    expect(said(parts(work(9), { by: 'places', at: '4, 7' }))).toEqual(['1: 1-3', '2: 4-6', '3: 7-9']);
    for (const by of ['series', 'pieces'] as const) expect(() => parts(work(4), { by })).toThrow(`no-${by}`);
  });

  // Hand duplexing, by practice: the fronts are printed first; their pile, laid in again, asks for the backs in its order.
  test('odd and even pages apart, the backs in reverse where the pile needs it; an odd last page is told', () => {
    const [fronts, backs] = parts(work(7), { by: 'faces', reverse: true });
    expect(fronts).toMatchObject({ name: 'odd', pages: [0, 2, 4, 6], alone: true });
    expect(backs).toMatchObject({ name: 'even', pages: [5, 3, 1] });
    const sheets = partsOf(work(8), { kind: 'sheets', split: { by: 'faces' } });
    expect(sheets.map(({ name, pages }) => [name, pages])).toEqual([
      ['fronts', [0, 2]],
      ['backs', [1, 3]],
    ]);
    const onOneSide = workOut(
      docketOf([takeInStep('a')], { scheme: { ...PLAIN_SCHEMES.flat, work: 'single-side' } }),
      {
        [hashOf('a')]: plainSurvey(40),
      },
    );
    expect(partsOf(onOneSide, { kind: 'sheets', split: { by: 'faces' } }).map(({ name }) => name)).toEqual([
      'fronts',
    ]);
  });

  test('together have every page once, in order, however they are cut', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 60 }),
        fc.oneof(
          fc.record({ by: fc.constant('every' as const), count: fc.integer({ min: 1, max: 70 }) }),
          fc.constant({ by: 'places' as const, at: 'odd' }),
          fc.constant({ by: 'faces' as const }),
        ),
        (count, split) => {
          const all = parts(work(count), split).flatMap(({ pages }) => pages);
          const order = split.by === 'faces' ? [...all].sort((a, b) => a - b) : all;
          expect(order).toEqual(Array.from({ length: count }, (_, n) => n));
        },
      ),
    );
  });
});

describe('names of files', () => {
  const values = (more: Partial<NameValues>): NameValues => ({
    job: '',
    source: '',
    part: '',
    from: '',
    to: '',
    size: '',
    scheme: '',
    date: '',
    ...more,
  });

  test.each([
    ['Season/timetable: 1?', 'Season_timetable_ 1_'],
    ['  ..\u0000hidden. ', 'hidden'],
    ['con', '_con'],
    ['LPT1.x', '_LPT1.x'],
    ['\u202Egnp.exe', 'gnp.exe'],
    ['Größe 東京 قطار', 'Größe 東京 قطار'],
    ['\n\t', 'file'],
  ])('%j is safe as %j', (given, safe) => expect(safeName(given)).toBe(safe));

  test('are safe, unique and short for titles in any script, and stay as they are when made safe again', () => {
    fc.assert(
      fc.property(
        fc.array(fc.string({ unit: 'binary', maxLength: 300 }), { minLength: 1, maxLength: 12 }),
        fc.boolean(),
        (titles, alike) => {
          const given = alike ? titles.map(() => titles[0]!) : titles;
          const names = fileNames(
            '{job}',
            given.map((job) => values({ job })),
            'pdf',
          );
          expect(new Set(names.map((name) => name.normalize('NFC').toLowerCase())).size).toBe(names.length);
          for (const name of names) {
            expect(Buffer.byteLength(name)).toBeLessThanOrEqual(255);
            expect(name).not.toMatch(/[\u0000-\u001f\u007f-\u009f<>:"/\\|?*]|^[.\s]|[.\s]\.pdf$/u);
            expect(name).not.toMatch(/^(con|prn|aux|nul|com\d|lpt\d)\./i);
          }
          for (const title of given) expect(safeName(safeName(title))).toBe(safeName(title));
        },
      ),
      {
        numRuns: 300,
        // Characters that nothing shows, between two spaces and between a letter and its accent.
        examples: [[['\u00a1\u0000\u{18cd6}\u0000\u00a1', 'a\u200b\u0308', '<\u200b>'], false]],
      },
    );
  });

  test('hold what tokens stand for; others are refused', () => {
    expect(fileNames('{job} {from}-{to}', [values({ job: 'A', from: '01', to: '10' })], 'pdf')).toEqual([
      'A 01-10.pdf',
    ]);
    expect(fileNames('{job}', [values({ job: 'Ä' }), values({ job: 'a\u0308' })], 'pdf')).toEqual([
      'Ä.pdf',
      'ä 2.pdf',
    ]);
    expect(() => fileNames('{page}', [], 'pdf')).toThrow('unknown-token');
  });
});

describe('what was written', () => {
  const given = work(4);
  const output = { kind: 'pages', crop: 'trim' } as const;
  const asked = askedOf(given, output)!({ pages: [0, 1, 2, 3] });
  const page = (label: string, size = A5) => surveyPage(size, { label });
  const written = (...pages: ReturnType<typeof page>[]) => ({ pages, spots: [] });

  test('agrees, or is told apart by its pages, sizes, labels and inks', () => {
    const right = ['1', '2', '3', '4'].map((label) => page(label));
    expect(disagreements(asked, written(...right))).toEqual([]);
    expect(disagreements(asked, written(...right.slice(1)))).toEqual([{ of: 'pages', asked: 4, written: 3 }]);
    const wrong = [page('i'), page('2', { width: A5.width, height: A5.height + 1 }), ...right.slice(2)];
    expect(disagreements(asked, written(...wrong)).map((each) => each.of)).toEqual([
      'label',
      'trim',
      'media',
    ]);
    expect(disagreements(asked, { ...written(...right), spots: ['Green'] })).toEqual([
      { of: 'ink-strange', name: 'Green' },
    ]);
    const inked = { ...asked, spots: { all: ['Green'], may: ['Green'] } };
    expect(disagreements(inked, written(...right))).toEqual([{ of: 'ink-lost', name: 'Green' }]);
  });
});

describe('what was drawn', () => {
  const scheme = { ...PLAIN_SCHEMES.stitched, stock: { width: mm(450), height: mm(320) } };
  const contents = [11, 22, 33, 44, 55, 66, 77, 88];
  /** What is asked of an output of eight pages, and a file in which all of it is right. */
  const rightOf = (output: Output, more: Partial<Survey> = {}) => {
    const surveys = { [hashOf('a')]: { ...plainSurvey(contents.length), contents, ...more } };
    const given = workOut(docketOf([takeInStep('a')], { scheme }), surveys);
    const asked = askedOf(given, output)!(firstOf(partsOf(given, output)));
    const pages = asked.pages.map(({ media, trim, label, shown }): WrittenPage => {
      const { boxes, toUpright } = surveyPage(media);
      const draws = (shown?.draws ?? []).map((draw) => ({ ...draw, content: draw.content ?? 0 }));
      const page = { boxes: { ...boxes, trim: sizeBox(trim) }, toUpright, ...(label ? { label } : {}) };
      return { ...page, shown: { draws, texts: 0 } };
    });
    return { asked, written: { pages, spots: [] } };
  };
  const torn = (written: Written): Written => ({
    ...written,
    pages: written.pages.map((page) => ({ ...page, incomplete: true })),
  });
  const kinds: Output[] = [{ kind: 'pages', crop: 'trim' }, { kind: 'sheets' }, { kind: 'spreads' }];

  test.each(kinds)('is told apart where it is another page, elsewhere, cut off, or lost: $kind', (output) => {
    const { asked, written } = rightOf(output);
    const changed = (change: (draw: Draw) => Draw[]) => ({
      ...written,
      pages: written.pages.map((page) => ({
        ...page,
        shown: {
          draws: page.shown!.draws.flatMap((draw) => (draw.content === 66 ? change(draw) : [draw])),
          texts: 0,
        },
      })),
    });
    const found = (change: (draw: Draw) => Draw[]) => disagreements(asked, changed(change));
    const page =
      1 + written.pages.findIndex(({ shown }) => shown!.draws.some(({ content }) => content === 66));
    expect(page).toBeGreaterThan(0);
    expect(found((draw) => [draw])).toEqual([]);
    expect(found((draw) => [{ ...draw, content: 22 }])).toEqual([{ of: 'shows', page }]);
    for (const move of [translate(0.1, 0), turnBack(90, 200, 200), scale(1, 1.001)])
      expect(found((draw) => [{ ...draw, matrix: compose(draw.matrix, move) }])).toEqual([
        { of: 'lies', page },
      ]);
    const { media } = entryAt(asked.pages, page - 1);
    const cut = { x0: 0, y0: 0, x1: media.width, y1: media.height - 20 };
    expect(found((draw) => [{ ...draw, clip: cut }])).toEqual([{ of: 'lies', page }]);
    expect(found(() => [])).toMatchObject([{ of: 'draws', page }]);
    expect(disagreements(asked, torn(written)).map(({ of }) => of)).toEqual(asked.pages.map(() => 'lost'));
  });

  test.each(kinds)(
    'of sources that nobody looked at so, or that are not whole, only where it lies is compared: $kind',
    (output) => {
      const { asked, written } = rightOf(output, {
        contents: contents.map(() => null),
        pages: plainSurvey(contents.length).pages.map((each) => ({ ...each, incomplete: true as const })),
      });
      const shownAs = (change: (draws: Draw[]) => Draw[]) => ({
        ...written,
        pages: written.pages.map((page) => ({
          ...page,
          // Whatever it is, it tells nothing.
          shown: page.shown && {
            draws: change(page.shown.draws.map((draw, n) => ({ ...draw, content: n }))),
            texts: 0,
          },
        })),
      });
      expect(disagreements(asked, torn(shownAs((draws) => draws)))).toEqual([]);
      const missed = new Set(
        disagreements(
          asked,
          shownAs((draws) => draws.slice(1)),
        ).map(({ of }) => of),
      );
      expect([...missed]).toEqual(output.kind === 'pages' ? [] : ['draws']);
    },
  );
});

test('outputs of one kind need names to tell them apart; a docket keeps them as they are', () => {
  const docket = docketOf([], {
    scheme: PLAIN_SCHEMES.stitched,
    outputs: [
      { kind: 'pages', crop: 'bleed' },
      {
        kind: 'pages',
        id: 'p2',
        crop: 'trim',
        pages: 'odd',
        split: { by: 'size', mb: 5 },
        name: '{job} {part}',
      },
      { kind: 'sheets', split: { by: 'faces', reverse: true } },
      { kind: 'previews', of: 'sheets', ppi: 72 },
      { kind: 'map', as: 'json' },
      { kind: 'docket' },
      { kind: 'ticket' },
    ],
  });
  expect(docketSchema.parse(JSON.parse(JSON.stringify(docket)))).toEqual(docket);
  const twice = { ...docket, outputs: [{ kind: 'sheets' }, { kind: 'sheets' }] };
  expect(docketSchema.safeParse(twice).success).toBe(false);
});

describe('stand-ins', () => {
  const planned = (scheme: Docket['scheme']) => ({
    ...workOut(docketOf([takeInStep('a')], { scheme }), { [hashOf('a')]: plainSurvey(8) }),
  });
  const turned = (turn?: PressTurn, scheme: Docket['scheme'] = PLAIN_SCHEMES.stitched) =>
    pressSides(planned(scheme).plan!, { turn }).map(
      ({ sheet, side, turned }) => `${sheet} ${side} ${turned}`,
    );

  test('a press that turns on the other edge than the sheets were laid for prints every back upside down; one side is a sheet each', () => {
    const { stitched } = PLAIN_SCHEMES;
    const asMeant = ['1 front 0', '1 back 0', '2 front 0', '2 back 0'];
    const wrong = ['1 front 0', '1 back 180', '2 front 0', '2 back 180'];
    for (const turn of ['short-edge', 'long-edge'] as const) {
      const other = turn === 'short-edge' ? 'long-edge' : 'short-edge';
      expect(plannedTurn(planned({ ...stitched, turn }).plan!)).toBe(turn);
      expect(turned(undefined, { ...stitched, turn })).toEqual(asMeant);
      expect(turned(turn, { ...stitched, turn })).toEqual(asMeant);
      expect(turned(other, { ...stitched, turn })).toEqual(wrong);
    }
    const mistake = (turn?: PressTurn, scheme: Docket['scheme'] = stitched) =>
      pressMistake(planned(scheme).plan!, { turn });
    expect([mistake(), mistake('short-edge'), mistake('long-edge'), mistake('one-side')]).toEqual([
      undefined,
      undefined,
      'other-edge',
      'one-side',
    ]);
    expect(mistake('one-side', { ...stitched, work: 'single-side' })).toBeUndefined();
    expect(turned('one-side')).toEqual(['1 front 0', '2 front 0', '3 front 0', '4 front 0']);
    expect(said(partsOf(planned(stitched), { kind: 'press', ppi: 72 }))[1]).toBe('1 back: 1-1');
  });

  test('a cutter follows what was made for cutting first; a job with nothing to follow goes to none', () => {
    const die: StepDraft = { ...DIE_LINE, graphic: { page: 'last' } };
    const given = plainSurvey(3);
    given.inks.push({ name: 'Moor green', kind: 'spot' }, { name: 'Die', kind: 'spot' });
    given.pages.forEach((page, n) => (page.inks = n === 2 ? [1] : [0]));
    const job = (steps: StepDraft[], scheme: Docket['scheme'] = { kind: 'none' }) =>
      workOut(docketOf([takeInStep('a'), ...stepsOf(steps)], { scheme }), { [hashOf('a')]: given });
    const names = (from: ReturnType<typeof job>, of: 'pages' | 'sheets') =>
      cutsOf(from, of).map(({ what, name }) => `${what} ${name}`);
    expect(names(job([die]), 'pages')).toEqual(['layer Cutting', 'ink Die', 'ink Moor green']);
    const marks = { ...PLAIN_SCHEMES.stitched.marks, paths: true as const };
    const sheets = job([], { ...PLAIN_SCHEMES.stitched, marks });
    // The sheet's own paths are straight: round corners and holes are in the die line alone.
    expect(names(job([die], { ...PLAIN_SCHEMES.stitched, marks }), 'sheets').slice(0, 2)).toEqual([
      'layer Cutting',
      'layer Cut paths',
    ]);
    expect(names(sheets, 'sheets')[0]).toBe('layer Cut paths');
    expect(names(sheets, 'pages')[0]).toBe('ink Die');
    expect(possibleKinds(work(3))).not.toContain('cutter');
    expect(possibleKinds(job([die]))).toContain('cutter');
  });
});
