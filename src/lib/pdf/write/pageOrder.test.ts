import { createHash } from 'node:crypto';
import { expect, test } from 'vitest';
import { drawRuleBookScans } from '../../standins/ruleBook';
import { docketOf, stepsOf } from '../../../../tests/makers';
import {
  boxesOf,
  give,
  make,
  markedPdf,
  readBack,
  tool,
  wordsOf,
  type Given,
} from '../../../../tests/outside';
import type { StepDraft as Draft } from '../../core/docket/steps';
import { workOut } from '../../core/checks';
import type { Docket } from '../../core/docket/docket';
import type { Step } from '../../core/docket/steps';
import { boundAt } from '../../core/pages/page';
import { SPINES, type Book } from '../../core/model/page';
import { workOutOrder } from '../../core/pages/workOutOrder';
import { mm } from '../../core/measure/unit';
import { DEFAULT_SCHEME } from '../../core/sheets/schemes';
import { measureSource } from '../../raster/measureSource';
import { surveyPdf } from '../read/survey';

const docket = (given: Given, drafts: Draft[], more: Partial<Docket> = {}) =>
  docketOf(
    [
      { id: 't', kind: 'take-in', source: given.hash, name: 'x.pdf', where: { at: 'end' } },
      ...stepsOf(drafts),
    ],
    more,
  );
const PAGES = { kind: 'pages', crop: 'trim' } as const;
const book: Book = { first: 'right', spine: 'left', facing: true };
/** The markers in the middle of each page, from left to right. */
const markers = (path: string) =>
  wordsOf(path).map((words) =>
    words
      .filter(({ text }) => /^P\d+$/.test(text))
      .sort((a, b) => a.x - b.x || b.y - a.y)
      .map(({ text }) => text.slice(1))
      .join(' '),
  );
/** The labels that qpdf reads from a file. */
const labelsIn = (path: string): string[] => {
  const { pages } = JSON.parse(tool('qpdf', '--json', '--json-key=pages', path)) as {
    pages: { label: { '/P'?: string; '/S'?: string; '/St'?: number } | null }[];
  };
  return pages.map(
    ({ label }) => `${label?.['/P']?.replace(/^u:/, '') ?? ''}${label?.['/S'] ? (label['/St'] ?? 1) : ''}`,
  );
};

test.each(SPINES)(
  'sheets made here go back to the pages that they were made of, spine at the %s',
  async (spine) => {
    const source = await give(await markedPdf(11));
    const bound = boundAt(book, spine);
    const sheets = await give(
      readBack(
        await make(docket(source, [], { book: bound, scheme: DEFAULT_SCHEME }), { kind: 'sheets' }, source),
      ),
    );
    const back = docket(
      sheets,
      [{ kind: 'reading-order', pages: 'all', arrangement: { by: 'stitched', scans: 'sheets' }, gutter: 0 }],
      { book: bound },
    );
    const path = await make(back, PAGES, sheets);
    // The blank that fills the last sheet lies before the back cover.
    expect(markers(path)).toEqual([...Array.from({ length: 10 }, (_, n) => `${n + 1}`), '', '11']);
    for (const { TrimBox } of boxesOf(path)) {
      expect(TrimBox![2]! - TrimBox![0]!).toBeCloseTo(420, 2);
      expect(TrimBox![3]! - TrimBox![1]!).toBeCloseTo(595, 2);
    }
  },
);

test('fold-outs: their pages in reading order with their labels, and on longer sheets', async () => {
  const source = await give(await markedPdf(8));
  const panel = (on: string, folds: 'front' | 'back'): Draft => ({
    kind: 'panel',
    pages: on,
    count: 1,
    show: '5-6',
    allowance: mm(2),
    folds,
  });
  const folder = docket(source, [panel('1', 'back'), panel('4', 'front')], {
    book,
    scheme: { ...DEFAULT_SCHEME, stock: { width: 2000, height: 900 } },
  });
  const pages = await make(folder, PAGES, source);
  expect(markers(pages)).toEqual(['1', '5', '6', '2', '3', '7', '8', '4']);
  expect(labelsIn(pages)).toEqual(['1', '1a', '1b', '2', '3', '3a', '3b', '4']);
  const sheet = await make(folder, { kind: 'sheets' }, source);
  tool('qpdf', '--check', sheet);
  expect(markers(sheet)).toEqual(['8 4 1 5', '6 2 3 7']);
});

test('pages that are split and joined show what they should, where they should, and nothing else', async () => {
  const source = await give(await markedPdf(4));
  const joined = await make(
    docket(source, [{ kind: 'join', pages: 'all', columns: 2, rows: 1, gap: 20 }], { book }),
    PAGES,
    source,
  );
  tool('qpdf', '--check', joined);
  expect(markers(joined)).toEqual(['1 2', '3 4']);
  const [first] = wordsOf(joined) as [ReturnType<typeof wordsOf>[0]];
  const at = (text: string) => first.find((word) => word.text === text)!.x;
  expect(at('P1')).toBeCloseTo(210, 0);
  expect(at('P2')).toBeCloseTo(420 + 20 + 210, 0);
  // A copy that is joined shows the page as it came, whatever became of the page itself.
  const copied = await make(
    docket(source, [
      { kind: 'copy', pages: '1-2', where: { at: 'end' } },
      {
        kind: 'trim',
        pages: '1-2',
        width: 210,
        height: 298,
        content: 'fit',
        fixed: { x: 'centre', y: 'centre' },
      },
      { kind: 'join', pages: '5-6', columns: 2, rows: 1, gap: 0 },
    ]),
    PAGES,
    source,
  );
  expect(markers(copied)).toEqual(['1', '2', '3', '4', '1 2']);
  expect(wordsOf(copied)[4]!.find((word) => word.text === 'P2')!.x).toBeCloseTo(630, 0);
  const apart = await make(
    docket(source, [
      { kind: 'join', pages: 'all', columns: 2, rows: 2, gap: 0 },
      { kind: 'split', pages: 'all', columns: 2, rows: 2, gutter: 0 },
    ]),
    PAGES,
    source,
  );
  expect(markers(apart)).toEqual(['1', '2', '3', '4']);
});

test('the scanned rule book: its numbers, read behind the pictures, tell order and turns, and which sheet is missing', async () => {
  const propose = async (without: number[]) => {
    const bytes = await drawRuleBookScans({ without });
    const hash = createHash('sha256').update(bytes).digest('hex');
    const surveys = { [hash]: await measureSource(bytes, await surveyPdf(bytes)) };
    const scans = workOut(
      docketOf([{ id: 't', kind: 'take-in', source: hash, name: 'x.pdf', where: { at: 'end' } }]),
      surveys,
    ).list.pages;
    const proposal = workOutOrder(scans, surveys, 'left')!;
    const { arrangement, turned } = proposal;
    const order: Draft = { kind: 'reading-order', pages: 'all', arrangement, turned, gutter: 0 };
    const steps = docketOf([
      { id: 't', kind: 'take-in', source: hash, name: 'x.pdf', where: { at: 'end' } },
      { ...order, id: 'o' } as Step,
    ]);
    return { proposal, work: workOut(steps, surveys) };
  };
  const whole = await propose([]);
  expect(whole.proposal).toMatchObject({
    arrangement: { by: 'stitched', scans: 'sheets' },
    agree: { length: 14 },
    differ: [],
    unread: [1, 16],
    turned: [
      { scans: [3, 7], by: 180 },
      { scans: [5], by: 270 },
    ],
  });
  expect(
    whole.work.list.pages.every(
      ({ trim }) => Math.abs(trim.width - mm(105)) < 1 && Math.abs(trim.height - mm(148)) < 1,
    ),
  ).toBe(true);
  const second = await propose([1]);
  expect(second.work.findings.find(({ code }) => code === 'sheet-missing')).toMatchObject({
    numbers: [3, 4, 13, 14],
  });
});

test('words on blanks are text in an embedded face, in the middle of the page, on pages and on sheets (poppler)', async () => {
  const source = await give(await markedPdf(3));
  const words = 'Page left blank – £5';
  const work = docket(source, [{ kind: 'blank', count: 1, where: { at: 'after', pages: '1' }, words }], {
    book,
    scheme: DEFAULT_SCHEME,
  });
  for (const output of [PAGES, { kind: 'sheets' } as const]) {
    const path = await make(work, output, source);
    tool('qpdf', '--check', path);
    expect(tool('pdffonts', path)).toMatch(/\+SourceSans3-Regular\s+CID TrueType\s+Identity-H\s+yes yes yes/);
    const [, second] = wordsOf(path) as [unknown, ReturnType<typeof wordsOf>[0]];
    const mine = second.filter(({ text }) => words.split(' ').includes(text)).sort((a, b) => a.x - b.x);
    expect(mine.map(({ text }) => text).join(' ')).toBe(words);
    // Sheet 1 back: page 2 is its left half, in the middle of an SRA3 sheet.
    const middle = output === PAGES ? { x: 210, y: 595 / 2 } : { x: mm(450) / 2 - 210, y: mm(320) / 2 };
    const [first, last] = [mine[0]!, mine.at(-1)!];
    expect(Math.abs((first.x + last.x) / 2 - middle.x)).toBeLessThan(12);
    expect(Math.abs(first.y - middle.y)).toBeLessThan(6);
  }
});
