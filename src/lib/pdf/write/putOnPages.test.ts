import { PDFDocument, PDFName } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { describe, expect, test } from 'vitest';
import { drawTickets, TICKETS } from '../../../../demo/tickets';
import { DIE } from '../../standins/paper';
import { bookOf, docketOf, stepsOf } from '../../../../tests/makers';
import {
  give,
  make,
  markedPdf,
  platesOf,
  readBack,
  tool,
  wordsOf,
  type Given,
} from '../../../../tests/outside';
import type { StepDraft as Draft } from '../../core/docket/steps';
import type { Docket } from '../../core/docket/docket';
import { replay } from '../../core/docket/replay';
import { DIE_LINE } from '../../core/docket/steps/overlay';
import { applyToPoint } from '../../core/measure/matrix';
import { mm } from '../../core/measure/unit';
import { FACES, WEIGHTS } from '../../core/model/faces';
import { advancesOf, faceKey } from '../../core/numbers/faceMetrics';
import faceMetrics from '../../core/numbers/faceMetrics.json' with { type: 'json' };
import { placeLaid } from '../../core/numbers/placeLaid';
import { placeLines } from '../../core/numbers/placeLines';
import { bleedBox, facesOf, sideAt } from '../../core/pages/page';
import { planSheets } from '../../core/sheets';
import { sidesOf } from '../../core/sheets/plan';
import { DEFAULT_SCHEME } from '../../core/sheets/schemes';
import { PLAIN_LINES } from '../../core/model/lines';
import { metricsOfFace, openFace } from './fonts';

const PAGES = { kind: 'pages', crop: 'bleed' } as const;
const docket = (given: Given, drafts: Draft[], more: Partial<Docket> = {}) =>
  docketOf(
    [
      { id: 't', kind: 'take-in', source: given.hash, name: 'moor.pdf', where: { at: 'end' } },
      ...stepsOf(drafts),
    ],
    { book: bookOf('right'), ...more },
  );
const SET = { ...PLAIN_LINES, x: mm(9), y: mm(7) };

test.each(FACES.flatMap((face) => WEIGHTS.map((weight) => ({ face, weight }))))(
  'what the core knows of $face $weight is what its file says',
  (face) => {
    const { runs, ...heights } = metricsOfFace(openFace(face));
    expect(faceMetrics[faceKey(face) as keyof typeof faceMetrics]).toEqual({ ...heights, runs });
    expect(advancesOf('Ag', { ...face, size: 10 })).toHaveLength(2);
  },
);

interface Word {
  text: string;
  x0: number;
  x1: number;
  /** Up from the foot of the page. */
  y0: number;
  y1: number;
}
/** Words with their bounds as poppler gives them, by page. */
const boxesOfWords = (path: string): Word[][] =>
  tool('pdftotext', '-bbox', path, '-')
    .split('<page ')
    .slice(1)
    .map((page) => {
      const height = Number(/height="([\d.]+)"/.exec(page)![1]);
      return [
        ...page.matchAll(/xMin="([\d.-]+)" yMin="([\d.-]+)" xMax="([\d.-]+)" yMax="([\d.-]+)">([^<]*)</g),
      ].map(([, x0, y0, x1, y1, text]) => ({
        text: text!,
        x0: Number(x0),
        x1: Number(x1),
        y0: height - Number(y1),
        y1: height - Number(y0),
      }));
    });

/** Poppler's words reach from their face's ascent to its descent, as the font descriptor gives them, the ascent no more than 1.05. */
const reach = (face: (typeof FACES)[number], size: number) => {
  const font = openFace({ face, weight: 'regular' });
  const [ascent, descent] = [font.ascent, font.descent].map((units) => units / font.unitsPerEm) as [
    number,
    number,
  ];
  return { up: Math.min(1.05, ascent) * size, down: Math.max(-0.4, descent) * size };
};

describe('folios and running lines stand where the core puts them, to 0.2 pt (poppler)', () => {
  const drafts: Draft[] = [
    {
      kind: 'numbers',
      series: [
        { from: '1', style: 'r', start: 1 },
        { from: '4', style: 'D', start: 1 },
      ],
    },
    { kind: 'folio', pages: 'all', ...SET, edge: 'foot', across: 'outer', text: '{page}' } as Draft,
    {
      kind: 'running',
      pages: 'all',
      ...SET,
      face: 'Source Serif 4',
      size: 11,
      texts: [
        { edge: 'head', across: 'outer', text: 'outer{page}' },
        { edge: 'head', across: 'centre', text: 'centre{page}', left: 'links{page}' },
        { edge: 'head', across: 'inner', text: 'inner{page}' },
      ],
      rule: { at: 'under', width: 0.5, gap: 2 },
    } as Draft,
    {
      kind: 'folio',
      pages: 'all',
      ...SET,
      face: 'DejaVu Sans',
      y: mm(20),
      edge: 'foot',
      across: 'centre',
      text: 'стр.{page}',
    } as Draft,
  ];
  const resized: Draft = {
    kind: 'trim',
    pages: '3-4',
    width: 500,
    height: 700,
    content: 'fill',
    fixed: { x: 'centre', y: 'foot' },
  };

  test.each<[string, Draft[]]>([
    ['pages as they came', drafts],
    ['pages that are scaled first', [resized, ...drafts]],
    ['pages that are scaled after', [...drafts, resized]],
  ])('%s', async (_, steps) => {
    const source = await give(await markedPdf(7, { bleed: 9 }));
    const work = docket(source, steps);
    const path = await make(work, PAGES, source);
    tool('qpdf', '--check', path);
    const { list } = replay(work, { [source.hash]: source.survey });
    const found = boxesOfWords(path);
    let checked = 0;
    list.pages.forEach((page, index) => {
      const side = sideAt(index, list);
      const bleed = bleedBox(page, side);
      for (const matter of page.matter!)
        for (const { item, box } of placeLines(matter, page, side).texts) {
          const word = found[index]!.find(({ text }) => text === item.text)!;
          const { up, down } = reach(item.face, item.size);
          const base = item.matrix[5] - bleed.y0;
          for (const [theirs, ours] of [
            [word.x0, box.x0 - bleed.x0],
            [word.x1, box.x1 - bleed.x0],
            [word.y1, base + up],
            [word.y0, base + down],
          ])
            expect(Math.abs(theirs! - ours!)).toBeLessThan(0.2);
          checked++;
        }
    });
    expect(checked).toBe(7 * 5);
    const fonts = tool('pdffonts', path);
    for (const face of ['SourceSans3-Regular', 'SourceSerif4-Regular', 'DejaVuSans'])
      expect(fonts).toMatch(new RegExp(`[A-Z]{6}\\+${face}\\s+CID TrueType\\s+Identity-H\\s+yes yes yes`));
    // The labels of the series, as qpdf reads them.
    const { pagelabels } = JSON.parse(tool('qpdf', '--json', '--json-key=pagelabels', path)) as {
      pagelabels: { index: number; label: Record<string, unknown> }[];
    };
    expect(pagelabels.map(({ index, label }) => [index, label['/S']])).toEqual([
      [0, '/r'],
      [3, '/D'],
    ]);
  });

  test('on pages that are turned, and on sheets', async () => {
    const source = await give(await markedPdf(8, { rotate: 90, width: 595, height: 420 }));
    const folio = {
      kind: 'folio',
      pages: 'all',
      ...SET,
      edge: 'foot',
      across: 'outer',
      text: 'F{page}',
    } as Draft;
    const work = docket(source, [folio], { scheme: DEFAULT_SCHEME });
    const pages = wordsOf(await make(work, PAGES, source));
    const { list } = replay(work, { [source.hash]: source.survey });
    const boxOn = (index: number) =>
      placeLines(list.pages[index]!.matter![0]!, list.pages[index]!, sideAt(index, list)).texts[0]!.box;
    list.pages.forEach((_, index) => {
      const word = pages[index]!.find(({ text }) => text === `F${index + 1}`)!;
      const box = boxOn(index);
      expect(Math.abs(word.x - (box.x0 + box.x1) / 2)).toBeLessThan(0.2);
    });
    const plan = planSheets(list, work.scheme)!;
    const sheets = boxesOfWords(await make(work, { kind: 'sheets' }, source));
    const sides = sidesOf(plan).map(({ drawn }) => drawn);
    let checked = 0;
    sides.forEach(({ cells }, n) => {
      for (const cell of cells) {
        const box = boxOn(cell.position - 1);
        const word = sheets[n]!.find(({ text }) => text === `F${cell.position}`)!;
        const [from, to] = [applyToPoint(cell.matrix, box.x0, 0), applyToPoint(cell.matrix, box.x1, 0)];
        expect(Math.abs(word.x0 - from.x)).toBeLessThan(0.2);
        expect(Math.abs(word.x1 - to.x)).toBeLessThan(0.2);
        checked++;
      }
    });
    expect(checked).toBe(8);
  });
});

test('a file that was numbered here before is numbered once more: both numbers are there (poppler)', async () => {
  const folio = (text: string, y: number) =>
    ({ kind: 'folio', pages: 'all', ...SET, y, edge: 'foot', across: 'outer', text }) as Draft;
  const source = await give(await markedPdf(3));
  const first = await make(docket(source, [folio('old{page}', 20)]), PAGES, source);
  const again = await give(readBack(first));
  const second = await make(docket(again, [folio('new{page}', 60)]), PAGES, again);
  tool('qpdf', '--check', second);
  boxesOfWords(second).forEach((words, n) => {
    const texts = words.map(({ text }) => text);
    expect(texts).toContain(`old${n + 1}`);
    expect(texts).toContain(`new${n + 1}`);
  });
});

const isEmpty = (plate: Buffer | undefined): boolean => !plate || plate.every((dot) => dot === 255);

describe('the tickets', () => {
  test('on all 50 the die line is on its own plate and on no other, as it was at 100 % (Ghostscript tiffsep)', async () => {
    const source = await give(await drawTickets());
    const before = await platesOf(
      await make(docket(source, [], { book: bookOf('right', { facing: false }) }), PAGES, source),
    );
    const after = await platesOf(
      await make(docket(source, [DIE_LINE], { book: bookOf('right', { facing: false }) }), PAGES, source),
    );
    expect([before.length, after.length]).toEqual([TICKETS + 1, TICKETS]);
    const line = before[TICKETS]!.get(DIE.name)!;
    expect(isEmpty(line)).toBe(false);
    after.forEach((plates, n) => {
      expect(plates.get(DIE.name)!.equals(line)).toBe(true);
      const own = before[n]!;
      expect(isEmpty(own.get(DIE.name))).toBe(true);
      // Nothing is knocked out of the other plates, and nothing added.
      for (const [ink, plate] of plates) if (ink !== DIE.name) expect(plate.equals(own.get(ink)!)).toBe(true);
    });
  });

  test.each([PAGES, { kind: 'sheets' } as const])(
    'the layer is listed, with its processing step (mutool), in %j',
    async (output) => {
      const source = await give(await drawTickets());
      const work = docket(source, [DIE_LINE], { scheme: DEFAULT_SCHEME });
      const path = await make(work, output, source);
      tool('qpdf', '--check', path);
      const layers = tool('mutool', 'show', path, 'trailer/Root/OCProperties/OCGs/1');
      expect(layers).toContain('/Name (Cutting)');
      // ISO 19593-1, from memory.
      expect(layers).toMatch(/\/GTS_ProcStepsGroup \/Structural[\s\S]*\/GTS_ProcStepsType \/Cutting/);
    },
  );
});

test('a stamp stands where it was put, turned and scaled, on left and right pages; one that fades is one group (poppler, qpdf)', async () => {
  const source = await give(await markedPdf(4));
  const mark = await give(await markedPdf(1, { width: 60, height: 40, prefix: 'MM' }));
  const stamp = (more: object): Draft =>
    ({
      kind: 'stamp',
      pages: 'all',
      graphic: { source: mark.hash, name: 'mark.pdf', index: 0 },
      size: { by: 'width', width: 90 },
      placing: { box: 'trim', x: 'outer', y: 'foot', dx: 30, dy: 50, turn: 0 },
      opacity: 1,
      ...more,
    }) as Draft;
  const surveys = { [source.hash]: source.survey, [mark.hash]: mark.survey };
  for (const placed of [stamp({}), stamp({ opacity: 0.4, behind: true })]) {
    const work = docket(source, [placed]);
    const path = await make(work, PAGES, source, mark);
    tool('qpdf', '--check', path);
    const { list } = replay(work, surveys);
    wordsOf(path).forEach((words, index) => {
      const page = list.pages[index]!;
      const at = applyToPoint(placeLaid(page.laid![0]!, page, sideAt(index, list)), 30, 20);
      const word = words.find(({ text }) => text === 'MMP1')!;
      expect(Math.abs(word.x - at.x)).toBeLessThan(0.2);
      // Poppler's middle of a word lies above its base line by a part of its size.
      expect(Math.abs(word.y - at.y)).toBeLessThan(12);
      expect(facesOf(list)[index]!.trim.width / 2 < at.x).toBe(index % 2 === 0);
    });
    const objects = tool('qpdf', '--qdf', '--object-streams=disable', path, '-');
    expect(objects.includes('/ca 0.4')).toBe('opacity' in placed && placed.opacity < 1);
  }
});

test('behind the art or before it, and no wider than the bleed (poppler)', async () => {
  const fieldOf = async (color: string, width: number, height: number) => {
    const document = await PDFDocument.create({ updateMetadata: false });
    const page = document.addPage([width, height]);
    page.node.set(
      PDFName.of('Contents'),
      document.context.register(
        document.context.flateStream(`${color} 20 20 ${width - 40} ${height - 40} re f`),
      ),
    );
    return give(await document.save({ useObjectStreams: false }));
  };
  const [source, over] = [await fieldOf('0 0 0 1 k', 100, 100), await fieldOf('1 0 0 0 k', 300, 300)];
  const darkness = async (more: object) => {
    const stamp = {
      kind: 'stamp',
      pages: 'all',
      graphic: { source: over.hash, name: 'x.pdf', index: 0 },
      size: { by: 'scale', scale: 1 },
      placing: { box: 'trim', x: 'centre', y: 'centre', dx: 0, dy: 0, turn: 0 },
      opacity: 1,
      ...more,
    } as Draft;
    const path = await make(docket(source, [stamp]), PAGES, source, over);
    tool('pdftoppm', '-r', '72', '-gray', '-png', '-singlefile', path, path);
    const { data, info } = await sharp(`${path}.png`).grayscale().raw().toBuffer({ resolveWithObject: true });
    expect([info.width, info.height]).toEqual([100, 100]);
    return [data[50 * info.width + 50]!, data[5 * info.width + 5]!];
  };
  const [before, behind, faint] = [
    await darkness({}),
    await darkness({ behind: true }),
    await darkness({ opacity: 0.5 }),
  ];
  expect(behind[0]).toBeLessThan(60);
  expect(before[0]).toBeGreaterThan(90);
  expect(faint[0]).toBeGreaterThan(behind[0]!);
  expect(faint[0]).toBeLessThan(before[0]!);
  // Beyond the black field the stamp shows in all of them.
  expect(behind[1]).toBe(before[1]);
  expect(faint[1]).toBeGreaterThan(before[1]!);
});
