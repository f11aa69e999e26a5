import { describe, expect, test } from 'vitest';
import {
  A5,
  bookOf,
  docketOf,
  hashOf,
  plainSurvey,
  survey,
  surveyPage,
  takeInStep,
  twoSided,
} from '../../../../tests/makers';
import { workOut } from '../checks';
import { partsOf } from '../handover/outputs';
import type { Step } from '../docket/steps';
import { sizeBox, type Size } from '../measure/box';
import { translate } from '../measure/matrix';
import { mm } from '../measure/unit';
import { likelyParts } from '../pages/coverParts';
import type { CoverPart } from '../model/page';
import { spotsOf } from '../numbers/jobInks';
import type { Book } from '../model/page';
import { spineOf } from './coverSheet';
import { eachSide, sidePlaces, type Cell, type CoverPlan } from './plan';
import { runOf } from './run';
import { sheetsXjdf } from './xjdf';
import { PLAIN_COVER, type CoverScheme } from './scheme';
import { PLAIN_SCHEMES, type Signatures } from './schemes';

const paper = { width: mm(640), height: mm(900), grammage: 100, bulk: 1 };
const scheme = (cover: Partial<CoverScheme> = {}, more: Partial<Signatures> = {}): Signatures => ({
  ...PLAIN_SCHEMES.signatures,
  stock: paper,
  cover: { ...PLAIN_COVER, ...cover },
  ...more,
});
const coverStep = (pages: string, parts: CoverPart[]): Step => ({ id: 'c', kind: 'cover', pages, parts });
/** A source whose pages have 3 mm of bleed. */
const bled = (...sizes: Size[]) =>
  survey(
    sizes.map(({ width, height }) => {
      const media = sizeBox({ width: width + mm(6), height: height + mm(6) });
      const trim = { x0: mm(3), y0: mm(3), x1: mm(3) + width, y1: mm(3) + height };
      return surveyPage(A5, {
        boxes: { media, crop: media, bleed: media, trim, art: trim },
        given: ['media', 'bleed', 'trim'],
      });
    }),
  );
/** A book of 64 A5 pages (32 leaves of 0.1 mm) and the pages of its cover, behind it or in front. */
function bound(
  sizes: Size[],
  parts: CoverPart[],
  given = scheme(),
  book: Book = bookOf('right'),
  where: 'start' | 'end' = 'end',
) {
  const pages = where === 'end' ? `${65}-${64 + sizes.length}` : `1-${sizes.length}`;
  return workOut(
    docketOf([takeInStep('a'), takeInStep('b', where), coverStep(pages, parts)], { scheme: given, book }),
    { [hashOf('a')]: plainSurvey(64), [hashOf('b')]: bled(...sizes) },
  );
}
const coverOf = (work: ReturnType<typeof bound>): CoverPlan => work.plan!.cover!;
const codes = (work: ReturnType<typeof bound>) => work.findings.map(({ code }) => code);
const along = (cells: readonly Cell[]) => cells.map(({ name }) => name);
const spread = (spine: number): Size => ({ width: 2 * A5.width + mm(spine), height: A5.height });

describe('the spine', () => {
  // By practice (leaves × caliper, 320 pages at 100 µm: 16 mm).
  test('is the leaves, what is added, and thread between one signature and the next', () => {
    const { worked, width } = spineOf({ leaves: 160, signatures: 20 }, scheme());
    expect(worked).toBeCloseTo(mm(16), 9);
    expect(width).toBe(worked);
    const sewn = spineOf({ leaves: 160, signatures: 20 }, scheme({ added: mm(4) }, { thread: mm(0.05) }));
    expect(sewn.width).toBeCloseTo(mm(16 + 19 * 0.05 + 4), 9);
  });

  test('is what was typed, or what the pages have while the paper is not known; both are said', () => {
    const typed = bound([spread(5)], ['outside'], scheme({ spine: mm(5) }));
    expect(coverOf(typed).spine.width).toBe(mm(5));
    const differs = typed.findings.find(({ code }) => code === 'spine-differs')!;
    expect(differs).toMatchObject({
      typed: mm(5),
      worked: expect.closeTo(mm(3.2), 9),
      mend: { code: 'worked-spine' },
    });
    const unknown = bound(
      [spread(5)],
      ['outside'],
      scheme({}, { stock: { width: mm(640), height: mm(900) } }),
    );
    expect(coverOf(unknown).spine.width).toBeCloseTo(mm(5), 6);
    expect(codes(unknown)).toContain('spine-unknown');
  });

  // By practice: leaves are from 25 µm (bible paper) to 0.6 mm (board) thick, and papers vary by a tenth. 32 leaves of 0.1 mm: 3.2 mm.
  test.each([
    ['a spine of 40 mm on 32 leaves of unknown paper', 40, {}, true, 'spine-impossible', 'stop'],
    ['none at all', 0, {}, true, 'spine-impossible', 'stop'],
    [
      'one typed twice as wide as the leaves are thick',
      6.4,
      { spine: mm(6.4) },
      false,
      'spine-differs',
      'stop',
    ],
    [
      'one that is off by less than the paper may be',
      4.4,
      { spine: mm(4.4) },
      false,
      'spine-differs',
      'look',
    ],
    ['one piece off by more than a knife is', 4.6, {}, false, 'cover-size', 'stop'],
  ] as const)('%s', (_, width, cover, unknown, code, level) => {
    const stock = unknown ? { width: mm(640), height: mm(900) } : paper;
    const { findings } = bound([spread(width)], ['outside'], scheme(cover, { stock }));
    expect(findings.find((each) => each.code === code)?.level).toBe(level);
  });
});

describe('the cover', () => {
  const sides: [Book, string[], string[]][] = [
    [bookOf('right'), ['back', 'spine', 'front'], ['inside front', 'inside back']],
    [bookOf('left', { spine: 'right' }), ['front', 'spine', 'back'], ['inside back', 'inside front']],
    [bookOf('lower', { spine: 'head' }), ['back', 'spine', 'front'], ['inside back', 'inside front']],
  ];
  test.each(sides)(
    'bound $spine: its parts side by side, each inside behind its outside',
    (book, outside, inside) => {
      const parts: CoverPart[] = ['front', 'inside-front', 'inside-back', 'back'];
      // Turned so that left and right change places, as by hand.
      const turn = book.spine === 'head' ? 'long-edge' : 'short-edge';
      const work = bound([A5, A5, A5, A5], parts, scheme({}, { turn }), book);
      const sheet = twoSided(work.plan!).at(-1)!;
      expect(along(sheet.front.cells)).toEqual(outside);
      expect(along(sheet.back.cells)).toEqual(inside);
      const at = (cells: readonly Cell[], name: string) => cells.find((cell) => cell.name === name)!.trim;
      for (const part of ['front', 'back']) {
        const [over, under] = [at(sheet.front.cells, part), at(sheet.back.cells, `inside ${part}`)];
        expect(under.x0).toBeCloseTo(sheet.size.width - over.x1, 6);
        expect(under.y0).toBeCloseTo(over.y0, 6);
      }
      const { size } = coverOf(work);
      const [length, other] = book.spine === 'head' ? [size.height, size.width] : [size.width, size.height];
      expect(length).toBeCloseTo(2 * (book.spine === 'head' ? A5.height : A5.width) + mm(3.2), 6);
      expect(other).toBe(book.spine === 'head' ? A5.width : A5.height);
    },
  );

  test('leaves the list: put in front, it moves no page to another side, and numbers stay', () => {
    const { list } = bound([A5, A5], ['front', 'back'], scheme(), bookOf('right'), 'start');
    expect(list.pages).toHaveLength(64);
    expect(list.pages[0]!.id).toBe(`${hashOf('a').slice(0, 12)}:1`);
    expect(Object.keys(list.cover!)).toEqual(['front', 'back']);
  });

  test('that was taken in round a finished interior is found, and made the cover', () => {
    const work = workOut(
      docketOf([takeInStep('a'), takeInStep('b', 'start'), takeInStep('c')], { scheme: scheme() }),
      { [hashOf('a')]: plainSurvey(64), [hashOf('b')]: plainSurvey(1), [hashOf('c')]: plainSurvey(1) },
    );
    const { otherMend } = work.findings.find(({ code }) => code === 'pairs-apart')!;
    const [step] = otherMend!.steps!;
    const mended = workOut(
      { ...work.docket, steps: [...work.docket.steps, { ...step!, id: 'c' } as Step] },
      work.surveys,
    );
    expect(mended.list.pages).toHaveLength(64);
    expect(Object.keys(mended.list.cover!)).toEqual(['front', 'back']);
    expect(mended.findings.map(({ code }) => code)).not.toContain('pairs-apart');
  });

  test('in one piece is checked against the sum, and the mend makes it that wide about its middle', () => {
    const work = bound([spread(4.6)], ['outside']);
    const finding = work.findings.find(({ code }) => code === 'cover-size')!;
    expect(finding).toMatchObject({ level: 'stop', part: 'outside', mend: { code: 'cover-to-sum' } });
    const [step] = finding.mend!.change!;
    const mended = workOut(
      { ...work.docket, steps: [...work.docket.steps.slice(0, 2), step!] },
      work.surveys,
    );
    expect(mended.findings.map(({ code }) => code)).not.toContain('cover-size');
    const { outside } = mended.list.cover!;
    expect(outside!.trim.width).toBeCloseTo(spread(3.2).width, 6);
    // 0.7 mm less at either side.
    expect(outside!.art!.place).toEqual(
      translate(expect.closeTo(-mm(3 + 0.7), 6) as never, expect.closeTo(-mm(3), 6) as never),
    );
    expect(codes(bound([spread(3.2)], ['outside']))).not.toContain('cover-size');
  });

  test('has flaps, a text on its spine, and runs of its own; what is wrong with them is said', () => {
    const five: CoverPart[] = ['back-flap', 'back', 'spine', 'front', 'front-flap'];
    const flap = { width: mm(80), height: A5.height };
    const spine = { width: mm(3.2), height: A5.height };
    const work = bound(
      [flap, A5, spine, A5, flap],
      five,
      scheme({ flap: mm(80), text: 'Moor', textSize: 20 }, { run: { pieces: 100, overs: 0 } }),
    );
    expect(coverOf(work).parts.map(({ part }) => part)).toEqual(five);
    expect(coverOf(work).size.width).toBeCloseTo(2 * (A5.width + mm(80)) + mm(3.2), 6);
    expect(codes(work)).toEqual(expect.arrayContaining(['spine-text-large', 'sheet-too-small']));
    expect(codes(work)).not.toContain('cover-bleed');
    expect(runOf(work.plan!, work.docket.scheme as Signatures)!.cover).toMatchObject({ sheets: 100 });
    expect(codes(bound([A5], ['front']))).toContain('cover-missing');
  });

  test('is looked at like any page: its images, its text, its inks', () => {
    const page = surveyPage(A5, { drawn: { ppi: 90, text: { x0: 2, y0: 40, x1: 90, y1: 90 } }, inks: [0] });
    const green = { name: 'Green', kind: 'spot' as const };
    const work = workOut(
      docketOf([takeInStep('a'), takeInStep('b'), coverStep('65', ['front'])], { scheme: scheme() }),
      { [hashOf('a')]: plainSurvey(64), [hashOf('b')]: { ...survey([page]), inks: [green] } },
    );
    expect(work.findings).toContainEqual(
      expect.objectContaining({ code: 'low-resolution', part: 'front', ppi: 90, pages: [] }),
    );
    expect(work.findings).toContainEqual(
      expect.objectContaining({ code: 'over-safe-area', part: 'front', nearest: 2 }),
    );
    expect(spotsOf(work.list, work.surveys, work.docket).map(({ name }) => name)).toEqual(['Green']);
  });

  test('is printed in its own way, which XJDF says; its text is no page there', () => {
    const work = bound([spread(3.2)], ['outside'], scheme({ text: 'Moor' }));
    const xjdf = sheetsXjdf(work.plan!, work.docket.scheme as Signatures, 'x');
    const sheets = work.plan!.sheetCount;
    expect(xjdf).toContain(
      `<Part SheetName="sheet-${sheets + 1}"/><ConventionalPrintingParams WorkStyle="Simplex"/>`,
    );
    expect(xjdf.match(/<PlacedObject/g)).toHaveLength(64 + 1);
  });

  test('is guessed from the sizes of its pages: a whole side, a narrow spine', () => {
    const { list } = workOut(docketOf([takeInStep('a')]), { [hashOf('a')]: plainSurvey(8) });
    const guess = (...sizes: Size[]) =>
      likelyParts(
        sizes.map((trim) => ({ trim })),
        list,
      );
    expect(guess(spread(5))).toEqual(['outside']);
    expect(guess(A5, { width: mm(5), height: A5.height }, A5)).toEqual(['back', 'spine', 'front']);
    expect(guess(A5, A5)).toEqual(['front', 'back']);
    expect(guess(A5, A5, A5, A5)).toEqual(['front', 'inside-front', 'inside-back', 'back']);
  });

  test('that cannot be is refused', () => {
    const problem = (parts: CoverPart[], pages: string) =>
      workOut(docketOf([takeInStep('a'), coverStep(pages, parts)]), { [hashOf('a')]: plainSurvey(4) }).replay
        .failed[0]?.problem.code;
    expect(problem(['front'], '1-2')).toBe('cover-count');
    expect(problem(['front', 'front'], '1-2')).toBe('cover-twice');
    expect(problem(['outside', 'spine'], '1-2')).toBe('cover-twice');
    expect(problem(['front', 'inside-front', 'inside-back', 'back'], 'all')).toBe('cover-of-nothing');
    expect(problem(['outside', 'inside'], '1-2')).toBeUndefined();
  });

  test.each([
    ['both sides, its cover on one', 'sheetwise', ['front', 'back'], [1, 2, 3, 4]],
    ['one side, its cover on both', 'single-side', ['front', 'inside-front'], [5]],
  ] as const)('a book printed on %s: fronts and backs go out apart', (_, work, parts, backs) => {
    // 64 pages, 16 a signature: four sheets, the cover's is the fifth.
    const job = bound([A5, A5], [...parts], scheme({}, { work }));
    const places = sidePlaces(job.plan!);
    expect(places).toEqual([...eachSide(job.plan!)].map(({ sheet, side }) => ({ sheet, side })));
    const apart = partsOf(job, { kind: 'sheets', split: { by: 'faces' } });
    expect(apart.map(({ name, pages }) => [name, pages.map((n) => places[n])])).toEqual([
      ['fronts', [1, 2, 3, 4, 5].map((sheet) => ({ sheet, side: 'front' }))],
      ['backs', backs.map((sheet) => ({ sheet, side: 'back' }))],
    ]);
    expect(apart[0]!.alone).toBe(work === 'sheetwise' ? true : undefined);
  });
});
