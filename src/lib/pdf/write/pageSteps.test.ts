import { describe, expect, test } from 'vitest';
import {
  PDFArray,
  PDFDict,
  PDFDocument,
  PDFName,
  PDFNull,
  PDFString,
  rgb,
  StandardFonts,
} from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { replay } from '../../core/docket/replay';
import type { Step } from '../../core/docket/steps';
import { heightOf, widthOf } from '../../core/measure/box';
import { applyToPoint, compose } from '../../core/measure/matrix';
import { inch, mm } from '../../core/measure/unit';
import { bleedBox, sideOf } from '../../core/pages/page';
import { DEFAULT_SCHEME } from '../../core/sheets/schemes';
import { docketOf } from '../../../../tests/makers';
import {
  boxesOf,
  give,
  keep,
  make,
  markedPdf,
  rotationsOf,
  tool,
  wordsOf,
  type Given,
} from '../../../../tests/outside';

const takeIn = (given: Given): Step => ({
  id: 't',
  kind: 'take-in',
  source: given.hash,
  name: 'x.pdf',
  where: { at: 'end' },
});
const centre = { x: 'centre', y: 'centre' } as const;
/** Steps of every kind that changes a page, on overlapping picks. */
const MIXED: Step[] = [
  { id: '1', kind: 'crop', cut: { by: 'edge', head: 20, foot: 10, spine: 5, fore: 30 }, pages: 'all' },
  { id: '2', kind: 'turn', pages: '2, 5', by: 90 },
  { id: '3', kind: 'trim', pages: '3-4', width: mm(105), height: mm(148), content: 'fit', fixed: centre },
  {
    id: '4',
    kind: 'trim',
    pages: '5',
    width: inch(8.5),
    height: inch(8.5),
    content: 'stretch',
    fixed: centre,
  },
  { id: '5', kind: 'bleed', pages: 'odd', head: mm(3), foot: mm(2), spine: 0, fore: mm(4), art: 'mirror' },
  { id: '6', kind: 'bleed', pages: '4, 6', head: 9, foot: 9, spine: 9, fore: 9, art: 'enlarge' },
  { id: '7', kind: 'turn', pages: '4', by: 270 },
  { id: '8', kind: 'uncrop', pages: '6' },
];

describe('what the page steps make of a PDF', () => {
  test.each([0, 90])(
    'boxes and words of every page are where the docket puts them, source turned by %i (poppler)',
    async (rotate) => {
      const given = await give(await markedPdf(6, { rotate, origin: [30, -12] }));
      const docket = docketOf([takeIn(given), ...MIXED]);
      const { list, failed } = replay(docket, { [given.hash]: given.survey });
      expect(failed).toEqual([]);
      const path = await make(docket, { kind: 'pages', crop: 'bleed' }, given);
      tool('qpdf', '--check', path);
      const boxes = boxesOf(path);
      const words = wordsOf(path);
      const asSupplied = wordsOf(keep(given.bytes));
      const turned = rotationsOf(path).map((by) => by % 180 !== 0);
      list.pages.forEach((page, index) => {
        const bleed = bleedBox(page, sideOf(index, list.book));
        const { MediaBox: m, BleedBox: b, TrimBox: t } = boxes[index]!;
        const size = (box: number[]) => {
          const sides = [box[2]! - box[0]!, box[3]! - box[1]!];
          return turned[index] ? sides.reverse() : sides;
        };
        const near = (got: number[], wanted: number[]) =>
          wanted.forEach((side, i) => expect(Math.abs(got[i]! - side)).toBeLessThan(0.011));
        near(size(t!), [page.trim.width, page.trim.height]);
        near(size(m!), [widthOf(bleed), heightOf(bleed)]);
        expect(b).toEqual(m);
        for (const [inner, outer] of [
          [t!, b!],
          [b!, m!],
        ])
          [0, 1].forEach((i) => {
            expect(inner![i]).toBeGreaterThanOrEqual(outer![i]!);
            expect(inner![i + 2]).toBeLessThanOrEqual(outer![i + 2]!);
          });
        // Poppler measures from the page's corner as seen, which is the bleed's; the matrix says where each word must be.
        const place = compose(page.art!.place, [1, 0, 0, 1, -bleed.x0, -bleed.y0]);
        for (const was of asSupplied[index]!) {
          const at = applyToPoint(place, was.x, was.y);
          const seen = at.x > 0 && at.y > 0 && at.x < widthOf(bleed) && at.y < heightOf(bleed);
          if (!seen) continue;
          const found = words[index]!.filter(({ text }) => text === was.text);
          expect(found.some(({ x, y }) => Math.hypot(x - at.x, y - at.y) < 0.1)).toBe(true);
        }
      });
      // Every page's own number is still to be read.
      expect(words.map((page) => page.some(({ text }) => /^P\d$/.test(text)))).toEqual(Array(6).fill(true));
    },
  );

  test('mirrored bleed is a reflection of the page in lines and curves, on pages and on sheets alike', async () => {
    const document = await PDFDocument.create();
    const font = await document.embedFont(StandardFonts.HelveticaBold);
    for (let n = 0; n < 4; n++) {
      const page = document.addPage([200, 280]);
      page.drawRectangle({ x: 0, y: 0, width: 200, height: 280, color: rgb(0.9, 0.8, 0.5) });
      page.drawText(`Larkmoor ${n}`, { x: 4, y: 262, size: 19, font });
      page.drawText(`moor ${n} moor ${n} moor`, { x: 2, y: 5, size: 15, font });
      page.drawCircle({ x: 200, y: 140, size: 30, color: rgb(0.1, 0.3, 0.6) });
      page.drawCircle({ x: 0, y: 100, size: 14, color: rgb(0.6, 0.1, 0.1) });
    }
    const given = await give(await document.save({ useObjectStreams: false }));
    const bleed = 24;
    const steps: Step[] = [
      takeIn(given),
      {
        id: 'b',
        kind: 'bleed',
        pages: 'all',
        head: bleed,
        foot: bleed,
        spine: bleed,
        fore: bleed,
        art: 'mirror',
      },
    ];
    const pages = await make(docketOf(steps), { kind: 'pages', crop: 'bleed' }, given);
    const sheets = await make(
      docketOf(steps, { scheme: { ...DEFAULT_SCHEME, marks: { trim: false, fold: false } } }),
      { kind: 'sheets' },
      given,
    );
    for (const path of [pages, sheets]) {
      tool('qpdf', '--check', path);
      // Two lines are the heading of an empty table.
      expect(tool('pdfimages', '-list', path).trim().split('\n')).toHaveLength(2);
    }
    const DOTS = 2;
    const dots = async (path: string) => {
      tool(
        'pdftoppm',
        '-r',
        String(72 * DOTS),
        '-f',
        '1',
        '-l',
        '1',
        '-png',
        '-singlefile',
        '-aa',
        'no',
        '-aaVector',
        'no',
        path,
        `${path}-out`,
      );
      const { data, info } = await sharp(`${path}-out.png`)
        .greyscale()
        .raw()
        .toBuffer({ resolveWithObject: true });
      return (x: number, y: number) => data[Math.floor(y) * info.width + Math.floor(x)]!;
    };
    /** The share of bleed dots that differ from the dot as far inside the trim as they lie outside. */
    const unlike = (
      at: (x: number, y: number) => number,
      trim: { x: number; y: number; w: number; h: number },
      edges: string[],
    ) => {
      let [seen, other] = [0, 0];
      for (let along = 2; along < bleed * DOTS - 2; along++)
        for (let across = 0; across < (edges.length ? 1 : 0) + trim.w + trim.h; across++) {
          for (const edge of edges) {
            const [i, o] = [along + 0.5, -along - 0.5];
            const pair =
              edge === 'left'
                ? [
                    [i, across],
                    [o, across],
                  ]
                : edge === 'right'
                  ? [
                      [trim.w - i, across],
                      [trim.w - o, across],
                    ]
                  : edge === 'head'
                    ? [
                        [across, i],
                        [across, o],
                      ]
                    : [
                        [across, trim.h - i],
                        [across, trim.h - o],
                      ];
            const limit = edge === 'left' || edge === 'right' ? trim.h : trim.w;
            if (across >= limit) continue;
            seen++;
            const [a, b] = pair.map(([x, y]) => at(trim.x + x!, trim.y + y!));
            if (Math.abs(a! - b!) > 24) other++;
          }
        }
      expect(seen).toBeGreaterThan(5000);
      return other / seen;
    };
    const onPage = { x: bleed * DOTS, y: bleed * DOTS, w: 200 * DOTS, h: 280 * DOTS };
    expect(unlike(await dots(pages), onPage, ['left', 'right', 'head', 'foot'])).toBeLessThan(0.01);
    // Page 1 lies right of the fold on the front of sheet 1; at the fold there is no room for bleed.
    const sheet = boxesOf(sheets)[0]!.MediaBox!;
    const onSheet = {
      x: (sheet[2]! / 2) * DOTS,
      y: ((sheet[3]! - 280) / 2) * DOTS,
      w: 200 * DOTS,
      h: 280 * DOTS,
    };
    expect(unlike(await dots(sheets), onSheet, ['right', 'head', 'foot'])).toBeLessThan(0.03);
    // Not trivially alike: a page without the mirror has white there.
    const plain = await make(
      docketOf([steps[0]!, { ...steps[1]!, art: 'leave' } as Step]),
      { kind: 'pages', crop: 'bleed' },
      given,
    );
    expect(unlike(await dots(plain), onPage, ['left', 'right', 'head', 'foot'])).toBeGreaterThan(0.5);
  });

  test('links, bookmarks and layers are still there after a new size, and lead where they led (qpdf)', async () => {
    const source = await PDFDocument.load(await markedPdf(3));
    const { context, catalog } = source;
    const [, second] = source.getPages().map(({ ref }) => ref);
    const link = context.obj({
      Type: 'Annot',
      Subtype: 'Link',
      Rect: [100, 100, 200, 150],
      Dest: [second, 'XYZ', 40, 500, PDFNull],
    });
    source.getPage(0).node.set(PDFName.of('Annots'), context.obj([context.register(link)]));
    const outlines = context.nextRef();
    const item = context.obj({
      Title: PDFString.of('Ashgill'),
      Parent: outlines,
      Dest: [second, 'XYZ', 0, 400, PDFNull],
    });
    const itemRef = context.register(item);
    context.assign(outlines, context.obj({ Type: 'Outlines', First: itemRef, Last: itemRef, Count: 1 }));
    catalog.set(PDFName.of('Outlines'), outlines);
    const layer = context.register(context.obj({ Type: 'OCG', Name: PDFString.of('Fares') }));
    catalog.set(
      PDFName.of('OCProperties'),
      context.obj({ OCGs: [layer], D: { Order: [layer], OFF: [layer] } }),
    );
    const given = await give(await source.save({ useObjectStreams: false }));
    const half: Step = {
      id: 's',
      kind: 'trim',
      pages: 'all',
      width: 210,
      height: 297.5,
      content: 'fit',
      fixed: centre,
    };
    const path = await make(docketOf([takeIn(given), half]), { kind: 'pages', crop: 'bleed' }, given);
    tool('qpdf', '--check', path);
    const json = JSON.parse(tool('qpdf', '--json', '--json-key=outlines', path)) as {
      outlines: { title: string; destpageposfrom1: number; dest: unknown[] }[];
    };
    expect(json.outlines[0]).toMatchObject({ title: 'Ashgill', destpageposfrom1: 2 });
    expect(json.outlines[0]!.dest.slice(1, 4)).toEqual(['/XYZ', 0, 200]);
    const written = await PDFDocument.load((await import('node:fs')).readFileSync(path));
    const annotation = written.getPage(0).node.Annots()!.lookup(0, PDFDict);
    const dest = annotation.lookup(PDFName.of('Dest'), PDFArray);
    expect(dest.get(0)).toBe(written.getPage(1).ref);
    expect([2, 3].map((i) => Number(dest.get(i).toString()))).toEqual([20, 250]);
    expect(tool('qpdf', '--json', path)).toContain('u:Fares');
  });
});
