import { describe, expect, test } from 'vitest';
import { PDFDocument, PDFName, PDFString } from '@cantoo/pdf-lib';
import { mm } from '../../core/measure/unit';
import { docketOf } from '../../../../tests/makers';
import type { Step } from '../../core/docket/steps';
import { drawCover, drawInterior } from '../../../../demo/timetable';
import { boxesOf, give, make, markedPdf, tool, wordsOf, type Given } from '../../../../tests/outside';

const takeIn = (given: Given, id = 't', where: 'start' | 'end' = 'end'): Step => ({
  id,
  kind: 'take-in',
  source: given.hash,
  name: 'x.pdf',
  where: { at: where },
});
const size = ([x0, y0, x1, y1]: number[]) => [x1! - x0!, y1! - y0!];
const trim = (more: Partial<Extract<Step, { kind: 'trim' }>>): Step => ({
  id: 's',
  kind: 'trim',
  pages: 'all',
  width: mm(148),
  height: mm(210),
  content: 'hold',
  fixed: { x: 'centre', y: 'centre' },
  ...more,
});

describe('reading-order PDF', () => {
  test('boxes asked for are boxes written, whatever the page was: turned, off the origin, in large units (poppler)', async () => {
    const kinds = [
      {},
      { rotate: 90, width: 595, height: 420 },
      { rotate: 270, width: 595, height: 420, origin: [100, -20] as [number, number] },
      { rotate: -180 },
      { userUnit: 2, width: 210, height: 297.5 },
    ];
    for (const kind of kinds) {
      const given = await give(await markedPdf(2, kind));
      const bleed: Step = {
        id: 'b',
        kind: 'bleed',
        pages: 'all',
        head: mm(4),
        foot: mm(2),
        spine: 0,
        fore: mm(3),
      };
      const path = await make(
        docketOf([takeIn(given), trim({}), bleed]),
        { kind: 'pages', crop: 'trim' },
        given,
      );
      tool('qpdf', '--check', path);
      const unit = kind.userUnit ?? 1;
      const sideways = (kind.rotate ?? 0) % 180 !== 0;
      const expectSize = (box: number[], width: number, height: number) => {
        const [w, h] = size(box).map((side) => side * unit);
        // Two printed decimals at each end of a side.
        expect(Math.abs(w! - (sideways ? height : width))).toBeLessThan(0.011 * unit);
        expect(Math.abs(h! - (sideways ? width : height))).toBeLessThan(0.011 * unit);
      };
      for (const { MediaBox, BleedBox, TrimBox, CropBox } of boxesOf(path)) {
        expectSize(TrimBox!, mm(148), mm(210));
        expectSize(MediaBox!, mm(151), mm(216));
        expect(BleedBox).toEqual(MediaBox);
        expect(CropBox).toEqual(TrimBox);
      }
    }
  });

  test('content held stays at the fixed point; content fitted goes where the matrix says, links too (poppler, qpdf)', async () => {
    const source = await PDFDocument.load(await markedPdf(2));
    const link = source.context.obj({
      Type: 'Annot',
      Subtype: 'Link',
      Rect: [100, 100, 200, 150],
      Border: [0, 0, 0],
      A: { S: 'URI', URI: PDFString.of('larkmoor:') },
    });
    source.getPage(0).node.set(PDFName.of('Annots'), source.context.obj([source.context.register(link)]));
    const given = await give(await source.save({ useObjectStreams: false }));
    const held = wordsOf(
      await make(
        docketOf([takeIn(given), trim({ width: 620, height: 795, fixed: { x: 'left', y: 'foot' } })]),
        { kind: 'pages', crop: 'bleed' },
        given,
      ),
    );
    const before = wordsOf(await make(docketOf([takeIn(given)]), { kind: 'pages', crop: 'bleed' }, given));
    held[0]!.forEach((word, i) =>
      expect([word.x, word.y]).toEqual([
        expect.closeTo(before[0]![i]!.x, 2),
        expect.closeTo(before[0]![i]!.y, 2),
      ]),
    );
    const path = await make(
      docketOf([takeIn(given), trim({ width: 210, height: 297.5, content: 'fit' })]),
      { kind: 'pages', crop: 'bleed' },
      given,
    );
    tool('qpdf', '--check', path);
    wordsOf(path)[0]!.forEach((word, i) =>
      expect([word.x, word.y]).toEqual([
        expect.closeTo(before[0]![i]!.x / 2, 1),
        expect.closeTo(before[0]![i]!.y / 2, 1),
      ]),
    );
    const rect = /"\/Rect": \[([^\]]+)\]/
      .exec(tool('qpdf', '--json', path))![1]!
      .split(',')
      .map(Number);
    expect(rect).toEqual([50, 50, 100, 75].map((value) => expect.closeTo(value, 2)));
  });

  test('a booklet of three files: order, labels, title, blanks and spot ink (poppler, qpdf)', async () => {
    const [interior, front, back] = [
      await give(await drawInterior()),
      await give(await drawCover('front')),
      await give(await drawCover('back')),
    ];
    const blank = (id: string, at: 'before' | 'after', pages: string): Step => ({
      id,
      kind: 'blank',
      count: 1,
      where: { at, pages },
    });
    const docket = docketOf(
      [
        takeIn(interior),
        takeIn(front, 'f', 'start'),
        takeIn(back, 'k'),
        blank('x', 'after', '1'),
        blank('y', 'before', 'last'),
      ],
      { title: 'Fahrplan № 1' },
    );
    const path = await make(docket, { kind: 'pages', crop: 'bleed' }, interior, front, back);
    tool('qpdf', '--check', path);
    expect(tool('pdfinfo', path)).toMatch(/Title:\s+Fahrplan № 1[\s\S]*Pages:\s+16/);
    const words = wordsOf(path).map((page) => page.map(({ text }) => text));
    expect([
      words[0]!.includes('Larkmoor'),
      words[1],
      words[2]!.includes('Welcome'),
      words[14],
      words[15]!.includes('made-up'),
    ]).toEqual([true, [], true, [], true]);
    const { pagelabels } = JSON.parse(tool('qpdf', '--json', '--json-key=pagelabels', path)) as {
      pagelabels: { index: number; label: Record<string, unknown> }[];
    };
    expect(pagelabels.map(({ index, label }) => [index, label['/P'] ?? label['/S']])).toEqual([
      [0, 'u:Cover'],
      [1, undefined],
      [2, '/D'],
      [14, undefined],
      [15, 'u:Back cover'],
    ]);
    const boxes = boxesOf(path);
    size(boxes[0]!.MediaBox!).forEach((side, i) =>
      expect(Math.abs(side - [mm(154), mm(216)][i]!)).toBeLessThan(0.011),
    );
    expect(
      (await give(new Uint8Array((await import('node:fs')).readFileSync(path)))).survey.inks,
    ).toContainEqual({ name: 'Larkmoor Green', kind: 'spot', mix: [0.85, 0.35, 0.6, 0.45] });
  });

  test('pages taken out do not ride along', async () => {
    const given = await give(await markedPdf(8));
    const path = await make(
      docketOf([takeIn(given), { id: 'r', kind: 'remove', pages: '3-8' }]),
      { kind: 'pages', crop: 'bleed' },
      given,
    );
    tool('qpdf', '--check', path);
    expect((tool('qpdf', '--json', path).match(/"\/Type": "\/Page"/g) ?? []).length).toBe(2);
  });
});
