import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { contains, heightOf, sizeBox, widthOf, type Size } from '../measure/box';
import { applyToPoint, type Matrix } from '../measure/matrix';
import { inch, mm } from '../measure/unit';
import { sizeByName } from '../paper/sizes';
import { artBox, sideOf, sidesOf } from '../pages/page';
import type { Page } from '../model/page';
import { contentScale } from '../pages/resize';
import { turnSides } from '../pages/turn';
import { resolveSelection } from '../select/selection';
import { pageSurface } from '../surface/pageSurface';
import type { StepDraft as Draft } from './steps';
import { workOut } from '../checks';
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
import { replay } from './replay';
import type { Docket } from './docket';

const inner = takeInStep('a');
const run = (surveys: Parameters<typeof replay>[1], drafts: Draft[], more: Partial<Docket> = {}) =>
  replay(docketOf([inner, ...stepsOf(drafts)], more), surveys);
const pagesOf = (size: Size, ...drafts: Draft[]) =>
  run({ [hashOf('a')]: plainSurvey(2, size) }, drafts).list.pages as [Page, Page];
const sameMatrix = (a: Matrix, b: Matrix) => a.forEach((entry, i) => expect(entry).toBeCloseTo(b[i]!, 6));

const length = fc.double({ min: 40, max: 3000, noNaN: true });
const size = fc.record({ width: length, height: length });
const fixed = fc.record({
  x: fc.constantFrom('left' as const, 'centre' as const, 'right' as const, 'spine' as const, 'fore' as const),
  y: fc.constantFrom('head' as const, 'centre' as const, 'foot' as const),
});
const trimTo = (
  to: Size,
  content: 'hold' | 'fit' | 'fill' | 'stretch',
  about: object = { x: 'centre', y: 'centre' },
): Draft => ({ kind: 'trim', pages: 'all', ...to, content, fixed: about }) as Draft;

describe('sizes', () => {
  test('fit there and back brings the content back: by fit where the shape stays, by fill from any shape; stretch always', () => {
    fc.assert(
      fc.property(size, size, fixed, fc.double({ min: 0.2, max: 5, noNaN: true }), (from, to, about, by) => {
        const [plain] = pagesOf(from);
        const alike = { width: from.width * by, height: from.height * by };
        for (const [there, out, back] of [
          [alike, 'fit', 'fit'],
          [to, 'fit', 'fill'],
          [to, 'stretch', 'stretch'],
        ] as const) {
          const pages = pagesOf(from, trimTo(there, out, about), trimTo(from, back, about));
          pages.forEach((page) => sameMatrix(page.art!.place, plain.art!.place));
        }
      }),
    );
  });

  test('hold moves nothing relative to the fixed point, on right and left pages', () => {
    fc.assert(
      fc.property(size, size, fixed, (from, to, about) => {
        pagesOf(from, trimTo(to, 'hold', about)).forEach((page, index) => {
          const spine = index === 0 ? 0 : 1;
          const fx = { left: 0, centre: 0.5, right: 1, spine, fore: 1 - spine }[about.x];
          const fy = { foot: 0, centre: 0.5, head: 1 }[about.y];
          const at = applyToPoint(page.art!.place, fx * from.width, fy * from.height);
          expect(at.x).toBeCloseTo(fx * to.width, 6);
          expect(at.y).toBeCloseTo(fy * to.height, 6);
        });
      }),
    );
  });

  // Worked examples by practice; ISO 216: ratio √2, so A4 to A5 is 1/√2 = 70.7 % (to the rounding of the sizes in mm).
  test('A4 to A5 is 70.7 %; 8.5 in square is square', () => {
    const [a4, a5] = [sizeByName('A4')!, sizeByName('A5')!];
    expect(Math.min(...contentScale(a4, a5, 'fit')) * 100).toBeCloseTo(70.5, 1);
    expect(Math.max(...contentScale(a4, a5, 'fill')) * 100).toBeCloseTo(70.7, 1);
    expect(sizeByName('square 8.5 in')).toMatchObject({ width: inch(8.5), height: inch(8.5) });
  });

  test('317.5 × 178.5 mm made 278.5 mm high: hold adds blank only; crop and fill enlarge by exactly their ratio', () => {
    const from = { width: mm(317.5), height: mm(178.5) };
    const to = { width: mm(317.5), height: mm(278.5) };
    const [held] = pagesOf(from, trimTo(to, 'hold'));
    expect(artBox(held)).toEqual({
      x0: 0,
      y0: expect.closeTo(mm(50), 9),
      x1: from.width,
      y1: expect.closeTo(mm(228.5), 9),
    });
    const cut = { by: 'side' as const, left: mm(60), right: mm(54.5), head: 0, foot: 0 };
    const [filled] = pagesOf(from, { kind: 'crop', cut, pages: 'all' }, trimTo(to, 'fill'));
    const scale = Math.max(317.5 / 203, 278.5 / 178.5);
    expect(filled.art!.place[0]).toBeCloseTo(scale, 12);
    expect(filled.art!.place[3]).toBeCloseTo(scale, 12);
  });

  test('margins keep their lengths, or scale with the content where asked', () => {
    const margins: Draft = {
      kind: 'margins',
      pages: 'all',
      head: 10,
      foot: 20,
      spine: 30,
      fore: 40,
      columns: 2,
      gap: 8,
    };
    const half = { width: A5.width / 2, height: A5.height / 2 };
    const [kept] = pagesOf(A5, margins, trimTo(half, 'fit'));
    const [scaled] = pagesOf(A5, margins, { ...trimTo(half, 'fit'), scaleMargins: true } as Draft);
    expect(kept.margins).toEqual({ head: 10, foot: 20, spine: 30, fore: 40 });
    expect(scaled.margins).toEqual({ head: 5, foot: 10, spine: 15, fore: 20 });
    expect(scaled.columns).toEqual({ count: 2, gap: 4 });
    const none = { ...margins, spine: A5.width - 40 } as Draft;
    expect(run({ [hashOf('a')]: plainSurvey(2) }, [none]).failed.map(({ problem }) => problem.code)).toEqual([
      'no-column',
    ]);
  });
});

const edge = fc.double({ min: 0, max: 18, noNaN: true });
const edges = fc.record({ head: edge, foot: edge, spine: edge, fore: edge });
const turnBy = fc.constantFrom(90 as const, 180 as const, 270 as const);

describe('crops and turns', () => {
  test('what was cropped comes back, whatever was done between and undone; the content never moves', () => {
    fc.assert(
      fc.property(size, edges, edges, turnBy, (from, first, second, by) => {
        const [plain, other] = pagesOf(from);
        const cut = (of: typeof first): Draft => ({ kind: 'crop', cut: { by: 'edge', ...of }, pages: 'all' });
        const back: Draft = { kind: 'uncrop', pages: 'all' };
        const turn = (degrees: number): Draft => ({ kind: 'turn', pages: 'all', by: degrees as 90 });
        for (const between of [[], [turn(by), turn(360 - by)]] as Draft[][]) {
          const pages = pagesOf(from, cut(first), ...between, cut(second), back);
          [plain, other].forEach((was, i) => {
            expect(pages[i]!.whole).toBeUndefined();
            expect(pages[i]!.trim.width).toBeCloseTo(was.trim.width, 6);
            sameMatrix(pages[i]!.art!.place, was.art!.place);
          });
        }
      }),
    );
  });

  test('left pages mirror right pages, and mirrored twice is as before; four turns are none', () => {
    fc.assert(
      fc.property(edges, turnBy, (of, by) => {
        const { left, right, ...rest } = sidesOf(of, 'right');
        expect(sidesOf(of, 'left')).toEqual({ ...rest, left: right, right: left });
        expect(turnSides(turnSides(sidesOf(of, 'left'), by), (360 - by) as 90)).toEqual(sidesOf(of, 'left'));
        const [onRight, onLeft] = pagesOf(A5, { kind: 'crop', cut: { by: 'edge', ...of }, pages: 'all' });
        expect(onRight.art!.place[4]).toBeCloseTo(-of.spine, 9);
        expect(onLeft.art!.place[4]).toBeCloseTo(-of.fore, 9);
      }),
    );
  });

  test('a crop that leaves nothing and a crop of blanks to their ink say so on their step', () => {
    const fail = (...drafts: Draft[]) =>
      run({ [hashOf('a')]: plainSurvey(2) }, drafts).failed.map(({ problem }) => problem.code);
    const off = { head: 0, foot: 0, left: 0, right: A5.width };
    expect(fail({ kind: 'crop', cut: { by: 'side', ...off }, pages: '2' })).toEqual(['nothing-left']);
    const toInk = { by: 'ink' as const, padding: 0, each: true, mirrored: false };
    expect(fail({ kind: 'crop', cut: toInk, pages: 'all' })).toEqual(['not-measured']);
    expect(
      fail({ kind: 'blank', count: 1, where: { at: 'end' } }, { kind: 'crop', cut: toInk, pages: 'last' }),
    ).toEqual(['no-ink']);
  });

  test('to the ink: each page by its own, or one cut that spares them all, mirrored on the left', () => {
    const drawn = (x0: number, x1: number) => surveyPage(A5, { drawn: { ink: { x0, y0: 50, x1, y1: 500 } } });
    const surveys = { [hashOf('a')]: survey([drawn(30, 380), drawn(20, 390)]) };
    const crop = (each: boolean, mirrored: boolean) =>
      run(surveys, [{ kind: 'crop', cut: { by: 'ink', padding: 5, each, mirrored }, pages: 'all' }]).list
        .pages;
    expect(crop(true, false).map(({ trim }) => trim.width)).toEqual(
      [360, 380].map((w) => expect.closeTo(w, 9)),
    );
    const [a, b] = crop(false, false);
    expect([a!.art!.place[4], b!.art!.place[4]]).toEqual([-15, -15]);
    // Left page: ink 20 from its fore edge, A5.width − 390 from its spine; right page 30 from its spine.
    const [right, left] = crop(false, true);
    expect(right!.art!.place[4]).toBeCloseTo(-(Math.min(30, A5.width - 390) - 5), 9);
    expect(left!.art!.place[4]).toBeCloseTo(-(Math.min(20, A5.width - 380) - 5), 9);
  });

  test('turn only those not yet portrait', () => {
    const mixed = {
      [hashOf('a')]: survey([surveyPage(), surveyPage({ width: A5.height, height: A5.width })]),
    };
    const { pages } = run(mixed, [{ kind: 'turn', pages: 'all', by: 90, unless: 'portrait' }]).list;
    expect(pages.map(({ trim }) => trim)).toEqual([A5, A5]);
    expect(pages[0]!.art!.place).toEqual([1, 0, 0, 1, 0, 0].map((entry) => expect.closeTo(entry, 9)));
    expect(pages[1]!.art!.place[0]).toBe(0);
  });
});

describe('bleed', () => {
  const bleed = (art: 'mirror' | 'enlarge', of = mm(3)): Draft => ({
    kind: 'bleed',
    pages: 'all',
    head: of,
    foot: of,
    spine: 0,
    fore: of,
    art,
  });

  test('mirrored: reflections fill exactly what the art does not reach, and touch it at its edge', () => {
    const [right, left] = pagesOf(A5, bleed('mirror'));
    const items = pageSurface(right, 'right').items;
    // The art, a strip at head, foot and fore edge, and two corners; none at the spine.
    expect(items).toHaveLength(6);
    const area = items.reduce(
      (sum, item) => sum + (item.kind === 'art' ? widthOf(item.clip) * heightOf(item.clip) : 0),
      0,
    );
    expect(area).toBeCloseTo((A5.width + mm(3)) * (A5.height + mm(6)), 6);
    for (const item of pageSurface(left, 'left').items)
      if (item.kind === 'art') {
        const { clip } = item;
        expect(clip.x1).toBeLessThanOrEqual(A5.width + 1e-9);
      }
  });

  test('enlarged: by the least scale that reaches the bleed on every edge that has one', () => {
    const [page] = pagesOf(A5, bleed('enlarge'));
    const scale = Math.max(
      (A5.width / 2 + mm(3)) / (A5.width / 2),
      (A5.height / 2 + mm(3)) / (A5.height / 2),
    );
    expect(page.art!.place[0]).toBeCloseTo(scale, 12);
    expect(
      contains(artBox(page)!, { x0: 0, y0: -mm(3), x1: A5.width + mm(3), y1: A5.height + mm(3) }, 1e-9),
    ).toBe(true);
  });

  test('a shortfall offers both mends, and either clears it; mirrored art that ends inside the trim is still short', () => {
    const surveys = { [hashOf('a')]: plainSurvey(4) };
    const plain = docketOf([inner, ...stepsOf([{ ...bleed('mirror'), art: 'leave' } as Draft])]);
    const found = workOut(plain, surveys).findings.find(({ code }) => code === 'bleed-short')!;
    for (const mend of [found.mend!, found.otherMend!]) {
      const mended = {
        ...plain,
        steps: [...plain.steps, ...stepsOf(mend.steps as Draft[]).map((s) => ({ ...s, id: 'm' }))],
      };
      expect(workOut(mended, surveys).findings.map(({ code }) => code)).not.toContain('bleed-short');
    }
    const grown = docketOf([
      inner,
      ...stepsOf([trimTo({ width: A5.width + 60, height: A5.height }, 'hold'), bleed('mirror')]),
    ]);
    expect(workOut(grown, surveys).findings.map(({ code }) => code)).toContain('bleed-short');
  });
});

describe('formats, pieces, blanks', () => {
  const format = { id: 'f', name: 'Body', trim: A5, bleed: { head: 9, foot: 9, spine: 0, fore: 9 } };
  const use: Draft = {
    kind: 'format',
    pages: 'all',
    format: 'f',
    content: 'hold',
    fixed: { x: 'centre', y: 'centre' },
  };
  const square = { width: 400, height: 400 };
  const own: Draft = {
    kind: 'trim',
    pages: '2',
    ...square,
    content: 'hold',
    fixed: { x: 'centre', y: 'centre' },
  };
  const made = (trim: Size, ...drafts: Draft[]) =>
    run({ [hashOf('a')]: plainSurvey(3, square) }, drafts, { formats: [{ ...format, trim }] }).list.pages;

  test('pages follow their format when it changes, but for what they have of their own, which can be given back', () => {
    const A6 = { width: mm(105), height: mm(148) };
    expect(made(A5, use).map(({ trim }) => trim)).toEqual([A5, A5, A5]);
    const changed = made(A6, use, own);
    expect(changed.map(({ trim }) => trim)).toEqual([A6, square, A6]);
    expect(changed.map((page) => page.format!.own)).toEqual([[], ['trim'], []]);
    expect(changed[1]!.bleed).toMatchObject({ head: 9, spine: 0 });
    const given = made(A6, use, own, { ...use, pages: '2', only: ['trim'] } as Draft);
    expect(given[1]).toMatchObject({ trim: A6, format: { own: [] } });
    expect(resolveSelection('format:body not 2', { pages: given, book: bookOf('right') })).toEqual([0, 2]);
    expect(run({ [hashOf('a')]: plainSurvey(1) }, [use]).failed[0]!.problem.code).toBe('no-such-format');
  });

  test('another size of a page is a piece of its own, and pieces of different sizes are no fault', () => {
    const drafts: Draft[] = [
      { kind: 'piece', pages: 'all', name: 'Letterhead', quantity: 500 },
      {
        kind: 'copy',
        pages: '1',
        where: { at: 'end' },
        size: { width: mm(210), height: mm(99), content: 'fit', fixed: { x: 'left', y: 'head' } },
        piece: { name: 'Slip', quantity: 250 },
      },
    ];
    const docket = docketOf([inner, ...stepsOf(drafts)], { book: bookOf('right', { facing: false }) });
    const { list, findings } = workOut(
      { ...docket, scheme: { kind: 'none' } },
      { [hashOf('a')]: plainSurvey(1, square) },
    );
    expect(list.pages.map(({ piece, trim }) => [piece!.name, Math.round(trim.height)])).toEqual([
      ['Letterhead', 400],
      ['Slip', 281],
    ]);
    expect(new Set(list.pages.map(({ id }) => id)).size).toBe(2);
    expect(findings.map(({ code }) => code)).toEqual(['bleed-missing']);
    expect(resolveSelection('piece:slip', list)).toEqual([1]);
  });

  test('a job begins with blank pages of a given shape, and later ones are like their neighbours', () => {
    const margins = { head: 40, foot: 50, spine: 60, fore: 30, columns: 2, gap: 12 };
    const shape = {
      width: mm(148),
      height: mm(148),
      bleed: { head: 9, foot: 9, spine: 0, fore: 9 },
      margins,
    };
    const { list } = replay(
      docketOf(
        stepsOf([
          { kind: 'blank', count: 4, where: { at: 'end' }, shape },
          { kind: 'blank', count: 1, where: { at: 'end' } },
        ]),
      ),
      {},
    );
    expect(new Set(list.pages.map(({ id }) => id)).size).toBe(5);
    for (const page of list.pages)
      expect(page).toMatchObject({
        trim: { width: mm(148) },
        bleed: { fore: 9 },
        margins: { spine: 60 },
        columns: { count: 2 },
      });
  });
});

test('whatever is done, the trim lies within the bleed and the bleed within the media', () => {
  const draft: fc.Arbitrary<Draft> = fc.oneof(
    fc
      .tuple(
        size,
        fixed,
        fc.constantFrom('hold' as const, 'fit' as const, 'fill' as const, 'stretch' as const),
      )
      .map(([to, about, content]) => trimTo(to, content, about)),
    edges.map((of): Draft => ({ kind: 'crop', cut: { by: 'edge', ...of }, pages: 'all' })),
    fc
      .tuple(edges, fc.constantFrom('leave' as const, 'mirror' as const, 'enlarge' as const))
      .map(([of, art]): Draft => ({ kind: 'bleed', pages: 'all', ...of, art })),
    turnBy.map((by): Draft => ({ kind: 'turn', pages: 'odd', by })),
    fc.constant<Draft>({ kind: 'uncrop', pages: 'all' }),
  );
  fc.assert(
    fc.property(fc.array(draft, { maxLength: 6 }), (drafts) => {
      const { list } = run({ [hashOf('a')]: plainSurvey(2) }, drafts);
      list.pages.forEach((page, index) => {
        const surface = pageSurface(page, sideOf(index, list.book));
        expect(surface.trim).toEqual(sizeBox(page.trim));
        expect(contains(surface.bleed, surface.trim)).toBe(true);
        expect(contains(surface.media, surface.bleed)).toBe(true);
        for (const item of surface.items)
          if (item.kind === 'art') expect(contains(surface.bleed, item.clip, 1e-6)).toBe(true);
      });
    }),
  );
});
