import { describe, expect, test } from 'vitest';
import { mm } from '../measure/unit';
import { emptyDocket } from '../docket/docket';
import { dayOf, momentOf } from '../numbers/day';
import { spreadsOf } from '../pages/leaves';
import { freshScheme } from '../sheets/schemes';
import { DEFAULT_SCHEME } from '../sheets/schemes';
import {
  A5,
  bookOf,
  docketOf,
  hashOf,
  plainSurvey,
  survey,
  surveyPage,
  takeInStep,
} from '../../../../tests/makers';
import type { Step } from '../docket/steps';
import type { Mend } from './index';
import { workOut } from '.';

const codes = (work: ReturnType<typeof workOut>) => work.findings.map((finding) => finding.code);
const put = (steps: Step[], mend: Mend): Step[] => [
  ...steps,
  ...(mend.steps ?? []).map((step, i) => ({ ...step, id: `mend${i}` }) as Step),
];

describe('a cover put round a finished interior', () => {
  const surveys = {
    [hashOf('a')]: plainSurvey(12),
    [hashOf('b')]: plainSurvey(1),
    [hashOf('c')]: plainSurvey(1),
  };
  const steps = [takeInStep('a'), takeInStep('b', 'start'), takeInStep('c', 'end')];
  const pairs = (work: ReturnType<typeof workOut>) =>
    spreadsOf(work.list.pages.length, work.list.book).map(({ left, right }) =>
      [left, right].map((i) => work.list.pages[i ?? -1]?.art?.index ?? '-').join(' '),
    );

  // By practice: pairs (2,3)(4,5) become (1,2)(3,4); one blank inside each cover restores them.
  test('swaps the pairs, is found, and one blank inside each cover mends it', () => {
    const before = workOut(docketOf(steps), surveys);
    expect(pairs(before).slice(1, 3)).toEqual(['0 1', '2 3']);
    const finding = before.findings.find(({ code }) => code === 'pairs-apart')!;
    expect(finding).toMatchObject({ level: 'stop', name: 'a.pdf', mend: { code: 'blank-inside-covers' } });
    expect(finding.pages).toHaveLength(12);
    const after = workOut(docketOf(put(steps, finding.mend!)), surveys);
    expect(after.list.pages).toHaveLength(16);
    expect(pairs(after).slice(1, 4)).toEqual(['- 0', '1 2', '3 4']);
    expect(codes(after)).not.toContain('pairs-apart');
    expect(codes(after)).not.toContain('blanks-wanted');
  });

  test('is nothing to find when the interior begins on the right, or is one page', () => {
    expect(codes(workOut(docketOf([takeInStep('a')]), surveys))).not.toContain('pairs-apart');
    expect(codes(workOut(docketOf([takeInStep('b'), takeInStep('c')]), surveys))).not.toContain(
      'pairs-apart',
    );
  });
});

test('the odd sizes are found, leaf by leaf, and the mend makes them like the rest', () => {
  const surveys = {
    [hashOf('a')]: survey(
      [0, 1, 2, 3].map((n) => surveyPage(n === 2 ? { width: mm(210), height: mm(297) } : undefined)),
    ),
  };
  const work = workOut(docketOf([takeInStep('a')]), surveys);
  const [mixed, leaf] = work.findings;
  expect(mixed).toMatchObject({ code: 'mixed-sizes', sizes: 2, pages: [work.list.pages[2]!.id] });
  expect(leaf).toMatchObject({
    code: 'leaf-two-sizes',
    pages: [work.list.pages[2]!.id, work.list.pages[3]!.id],
  });
  expect(codes(workOut(docketOf(put([takeInStep('a')], mixed!.mend!)), surveys))).toEqual(['bleed-missing']);
});

test('a page that only lies the other way is turned, not made as large as the rest; scans that were cut up are not judged at the cut', () => {
  const lying = { width: mm(210), height: mm(148) };
  const surveys = { [hashOf('a')]: survey([0, 1, 2, 3].map((n) => surveyPage(n > 1 ? undefined : lying))) };
  const loose = { book: bookOf('right', { facing: false }) };
  const [mixed] = workOut(docketOf([takeInStep('a')], loose), surveys).findings;
  expect(mixed).toMatchObject({ code: 'mixed-sizes', mend: { code: 'turn-like-rest' } });
  const mended = workOut(docketOf(put([takeInStep('a')], mixed!.mend!), loose), surveys);
  expect(codes(mended)).not.toContain('mixed-sizes');
  expect(new Set(mended.list.pages.map(({ trim }) => Math.round(trim.width))).size).toBe(1);

  const wide = { width: 2 * A5.width, height: A5.height };
  const all = { x0: 0, y0: 0, x1: wide.width, y1: wide.height };
  const scans = { [hashOf('a')]: survey([surveyPage(wide, { drawn: { ink: all, text: all } })]) };
  const split: Step = {
    id: 's',
    kind: 'split',
    pages: 'all',
    columns: 2,
    rows: 1,
    gutter: 0,
  };
  const cut = workOut(docketOf([takeInStep('a'), split]), scans);
  expect(cut.list.pages).toHaveLength(2);
  expect(codes(cut)).not.toContain('over-safe-area');
});

test('bleed: none supplied, less than asked for, and enough', () => {
  const bleed = (points: number): Step => ({
    id: 'x',
    kind: 'bleed',
    pages: 'all',
    head: points,
    foot: points,
    spine: 0,
    fore: points,
  });
  const media = { x0: -6, y0: -6, x1: mm(148) + 6, y1: mm(210) + 6 };
  const boxes = { ...surveyPage().boxes, media, bleed: media };
  const surveys = {
    [hashOf('a')]: survey(
      [1, 2, 3, 4].map(() => surveyPage(undefined, { boxes, given: ['media', 'trim', 'bleed'] })),
    ),
    [hashOf('b')]: plainSurvey(4),
  };
  expect(codes(workOut(docketOf([takeInStep('a')]), surveys))).toEqual([]);
  expect(workOut(docketOf([takeInStep('a'), bleed(9)]), surveys).findings[0]).toMatchObject({
    code: 'bleed-short',
    wanted: 9,
    there: expect.closeTo(6),
  });
  expect(codes(workOut(docketOf([takeInStep('b')]), surveys))).toEqual(['bleed-missing']);
  expect(workOut(docketOf([takeInStep('b'), bleed(9)]), surveys).findings[0]).toMatchObject({
    code: 'bleed-short',
    there: 0,
  });
});

test('an edge without bleed does not hide one that is short, and the spine is not asked', () => {
  const page = surveyPage();
  const media = { ...page.boxes.media, x1: page.boxes.media.x1 + 9 };
  const surveys = {
    [hashOf('a')]: survey([
      surveyPage(undefined, { boxes: { ...page.boxes, media, trim: page.boxes.media } }),
    ]),
  };
  const work = (edges: { head: number; foot: number; spine: number; fore: number }) =>
    codes(workOut(docketOf([takeInStep('a'), { id: 'x', kind: 'bleed', pages: 'all', ...edges }]), surveys));
  expect(work({ head: 0, foot: 0, spine: 0, fore: 9 })).not.toContain('bleed-short');
  expect(work({ head: 0, foot: 0, spine: 9, fore: 9 })).not.toContain('bleed-short');
  expect(work({ head: 0, foot: 4, spine: 0, fore: 9 })).toContain('bleed-short');
  expect(work({ head: 0, foot: 0, spine: 9, fore: 0 })).toContain('bleed-missing');
});

describe('sheets', () => {
  const surveys = { [hashOf('a')]: plainSurvey(6) };
  const sheet = (width: number, height: number) => ({
    scheme: { ...DEFAULT_SCHEME, stock: { width: mm(width), height: mm(height) } },
  });
  const work = (size: { scheme: typeof DEFAULT_SCHEME }) =>
    workOut(
      docketOf(
        [
          takeInStep('a'),
          { id: 'x', kind: 'bleed', pages: 'all', head: mm(3), foot: mm(3), spine: 0, fore: mm(3) },
        ],
        size,
      ),
      surveys,
    );

  test.each([
    [210, 297, 'bleed-off-sheet'],
    [200, 297, 'sheet-too-small'],
    [210, 295, 'sheet-too-small'],
    [212, 300, 'bleed-off-sheet'],
    [220, 305, 'marks-off-sheet'],
  ])('%d × %d mm for A5 pages: %s', (width, height, code) => {
    const finding = work(sheet(width, height)).findings.find(
      (f) => f.stage === 'sheets' && f.code !== 'blanks-wanted',
    )!;
    // 2 × 148 + 2 × (3 + 5) wide, 210 + 2 × (3 + 5) high.
    expect(finding).toMatchObject({
      code,
      needed: { width: expect.closeTo(mm(312)), height: expect.closeTo(mm(226)) },
    });
    expect(finding.mend).toMatchObject({ code: 'larger-sheet', data: { name: 'B4' } });
  });

  test('a sheet that takes it all raises nothing; missing pages are counted; a first page on the left is refused', () => {
    expect(codes(work(sheet(320, 450)))).toEqual(['bleed-short', 'blanks-wanted']);
    expect(work(sheet(320, 450)).findings[1]).toMatchObject({
      count: 2,
      total: 6,
      mend: { steps: [{ kind: 'blank', count: 2 }] },
    });
    expect(codes(workOut(docketOf([takeInStep('a')], { book: bookOf('left') }), surveys))).toContain(
      'first-page-side',
    );
    expect(workOut(emptyDocket('x'), {}).findings).toEqual([]);
  });
});

describe('what is drawn', () => {
  const drawn = (more: object) => ({ [hashOf('a')]: survey([surveyPage(A5, { drawn: more })]) });
  const found = (surveys: ReturnType<typeof drawn>, ...steps: Step[]) =>
    workOut(docketOf([takeInStep('a'), ...steps]), surveys).findings.filter(({ code }) =>
      ['over-safe-area', 'low-resolution'].includes(code),
    );
  const grown = (by: number): Step => ({
    id: 's',
    kind: 'trim',
    pages: 'all',
    width: A5.width * by,
    height: A5.height * by,
    content: 'fit',
    fixed: { x: 'left', y: 'foot' },
  });

  // By practice: 200 pixels an inch are the least.
  test('an image is as coarse as it is printed', () => {
    expect(found(drawn({ ppi: 300 }))).toEqual([]);
    expect(found(drawn({ ppi: 300 }), grown(2))).toMatchObject([{ code: 'low-resolution', ppi: 150 }]);
    expect(found(drawn({ ppi: 150 }), grown(0.5))).toEqual([]);
  });

  test.each<[string, object, number | undefined]>([
    ['text within the safe area', { text: { x0: 40, y0: 40, x1: 300, y1: 400 } }, undefined],
    ['text 4 pt from the trim', { text: { x0: 4, y0: 40, x1: 300, y1: 400 } }, 4],
    ['text over the trim', { text: { x0: 40, y0: 40, x1: 300, y1: A5.height + 2 } }, -2],
    ['art that runs to the trim', { ink: { x0: 0, y0: 0, x1: A5.width, y1: A5.height } }, undefined],
    ['art that stops 5 pt short of it', { ink: { x0: 5, y0: 0, x1: A5.width, y1: A5.height } }, 5],
  ])('%s', (_, what, nearest) => {
    expect(found(drawn(what))).toMatchObject(
      nearest === undefined ? [] : [{ code: 'over-safe-area', nearest: expect.closeTo(nearest, 6) }],
    );
  });
});

test('files that were damaged or hold annotations, and pages that cannot be drawn, are found by their pages; a step that is off takes its file along', () => {
  const found = (given: object, pages: object[] = [{}, {}], steps: Step[] = [takeInStep('a')]) =>
    workOut(docketOf(steps), {
      [hashOf('a')]: { ...survey(pages.map((page) => surveyPage(A5, page))), ...given },
    })
      .findings.filter(({ code }) => /^(file|page-broken|annotations|resolution-un|blank-)/.test(code))
      .map(({ code, level, pages: on }) => [code, level, on.length]);
  expect(found({})).toEqual([]);
  expect(found({ rebuilt: true })).toEqual([['file-rebuilt', 'look', 2]]);
  expect(found({}, [{ incomplete: true }, {}])).toEqual([['page-broken', 'stop', 1]]);
  expect(found({ annotations: { print: [0, 1], screen: [1] } })).toEqual([
    ['annotations-print', 'note', 2],
    ['annotations-screen', 'note', 1],
  ]);
  expect(found({ rebuilt: true }, [{}], [{ ...takeInStep('a'), off: true }])).toEqual([]);
  // A picture of unknown resolution has the size of a guess, until somebody says how large it is.
  const picture = { kind: 'PNG', ppi: 300, stated: false };
  expect(found({ picture })).toEqual([['resolution-unstated', 'look', 2]]);
  expect(found({ picture }, [{}], [{ ...takeInStep('a'), ppi: 200 } as Step])).toEqual([]);
  expect(found({ picture: { ...picture, stated: true } })).toEqual([]);
  const blank = { drawn: { scan: { skew: 0, paper: { x0: 0, y0: 0, x1: 1, y1: 1 }, blank: true } } };
  expect(found({}, [{}, blank, blank])).toEqual([['blank-scans', 'note', 2]]);
});

test('a supplied page that draws nothing is blank: no folio is printed on it', () => {
  const folio = {
    id: 'f',
    kind: 'folio',
    pages: 'all',
    edge: 'foot',
    across: 'outer',
    text: '{page}',
    from: 'trim',
    x: 20,
    y: 20,
    face: 'Source Sans 3',
    weight: 'regular',
    size: 9,
    ink: { as: 'grey', black: 1 },
  } as Step;
  const { list } = workOut(docketOf([takeInStep('a'), folio]), {
    [hashOf('a')]: survey([surveyPage(A5), surveyPage(A5, { empty: true }), surveyPage(A5)]),
  });
  expect(list.pages.map(({ matter }) => matter?.some(({ hidden }) => !hidden))).toEqual([true, false, true]);
});

test('a job begins as its pages are: six of a panel’s size as panels, two sides as sides; flat pages of one size as pairs, others loose', () => {
  const begun = (kind: 'leaflet' | 'flat', widths: number[]) => {
    const { list } = workOut(docketOf([takeInStep('a')]), {
      [hashOf('a')]: survey(widths.map((width) => surveyPage({ width: mm(width), height: mm(210) }))),
    });
    const { scheme, book } = freshScheme(kind, list, DEFAULT_SCHEME);
    return 'pages' in scheme ? scheme.pages : (book.facing ?? list.book.facing);
  };
  expect(begun('leaflet', [99, 99, 99, 99, 99, 99])).toBe('panels');
  expect(begun('leaflet', [297, 297])).toBe('sides');
  expect(begun('flat', [85, 85, 55, 55])).toBe(true);
  expect(begun('flat', [85, 55])).toBe(false);
});

test('today is the day where the work is done, whatever the day elsewhere; files may be told their moment', () => {
  expect(dayOf(new Date(2026, 0, 5, 0, 1))).toBe('2026-01-05');
  expect(dayOf(new Date(2026, 0, 5, 23, 59))).toBe('2026-01-05');
  expect(momentOf('1795000000', new Date(0)).toISOString()).toBe('2026-11-18T11:06:40.000Z');
  for (const none of [undefined, '', 'yesterday', '-1'])
    expect(momentOf(none, new Date(7)).getTime()).toBe(7);
});
