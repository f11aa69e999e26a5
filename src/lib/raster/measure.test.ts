import { spawnSync } from 'node:child_process';
import { degrees, PDFDocument, PDFName, rgb, StandardFonts } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { expect, test } from 'vitest';
import { drawDemoSources } from '../../../demo/draw';
import { keep, tool } from '../../../tests/outside';
import { firstOf } from '../core/entries';
import type { Box } from '../core/measure/box';
import type { Survey } from '../core/model/survey';
import { surveyPdf } from '../pdf/read/survey';
import { measureSource } from './measureSource';
import { mediaBoxOf } from './mediaBox';
import { startRenderer } from './nodeRenderer';

const measure = async (bytes: Uint8Array): Promise<Survey['pages']> =>
  (await measureSource(bytes, await surveyPdf(bytes))).pages;

/** Ghostscript's bounding box of each page's marks, white left out, in points; undefined for an empty page. */
function ghostscriptBoxes(path: string): (Box | undefined)[] {
  const { stderr } = spawnSync('gs', ['-q', '-dBATCH', '-dNOPAUSE', '-dSAFER', '-sDEVICE=bbox', path], {
    encoding: 'utf8',
  });
  return [...stderr.matchAll(/%%HiResBoundingBox: (\S+) (\S+) (\S+) (\S+)/g)].map(([, ...numbers]) => {
    const [x0, y0, x1, y1] = numbers.map(Number) as [number, number, number, number];
    return x1 > x0 ? { x0, y0, x1, y1 } : undefined;
  });
}

const TOLERANCE = 0.75;
function agree(ours: Box | undefined, theirs: Box | undefined): void {
  if (!theirs) return expect(ours).toBeUndefined();
  for (const side of ['x0', 'y0', 'x1', 'y1'] as const)
    expect(Math.abs(ours![side] - theirs[side])).toBeLessThan(TOLERANCE);
}

test('the ink of every demo page ends where Ghostscript says', async () => {
  let pages = 0;
  for (const { bytes } of await drawDemoSources()) {
    const theirs = ghostscriptBoxes(keep(bytes));
    const ours = await measure(bytes);
    expect(theirs).toHaveLength(ours.length);
    ours.forEach(({ drawn }, i) => agree(drawn!.ink, theirs[i]));
    pages += ours.length;
  }
  expect(pages).toBeGreaterThan(10);
});

test('turned, scaled, white and clipped content too; white on white is no ink', async () => {
  const document = await PDFDocument.create();
  const font = await document.embedFont(StandardFonts.Helvetica);
  const add = (draw: (page: ReturnType<typeof document.addPage>) => void, rotate = 0) => {
    const page = document.addPage([400, 300]);
    page.setRotation(degrees(rotate));
    draw(page);
  };
  const mark = (page: ReturnType<typeof document.addPage>) => {
    page.drawText('Larkmoor', { x: 50, y: 60, size: 30, font });
    page.drawRectangle({ x: 200, y: 150, width: 80, height: 20.3, color: rgb(0.9, 0.95, 1) });
  };
  for (const rotate of [0, 90, 180, 270]) add(mark, rotate);
  add((page) => page.drawText('turned', { x: 100, y: 100, size: 24, font, rotate: degrees(33) }));
  add((page) => {
    page.scaleContent(0.37, 1.4);
    mark(page);
    page.scaleContent(0.37, 1.4);
  });
  add((page) => {
    mark(page);
    page.drawRectangle({ x: 10, y: 10, width: 300, height: 280, color: rgb(1, 1, 1) });
    page.drawRectangle({ x: 320, y: 40, width: 30, height: 30, color: rgb(0, 0, 0) });
  });
  add((page) => page.drawRectangle({ x: 10, y: 10, width: 300, height: 280, color: rgb(1, 1, 1) }));
  add(() => undefined);
  const clipped = document.addPage([400, 300]);
  clipped.node.set(
    PDFName.of('Contents'),
    document.context.register(
      document.context.flateStream(
        'q 60 70 90 40 re W n 0 0 1 rg 0 0 400 300 re f Q 1 0 0 RG 0.5 w 20 250 m 210 250.5 l S',
      ),
    ),
  );
  const bytes = await document.save({ useObjectStreams: false });
  const theirs = ghostscriptBoxes(keep(bytes));
  const ours = await measure(bytes);
  expect(theirs).toHaveLength(ours.length);
  // White painted over marks hides them for the eye, but Ghostscript's device counts what was under it: only the marks that stay in sight are ink.
  ours.forEach(({ drawn }, i) =>
    i === 6 ? expect(drawn!.ink!.x1).toBeCloseTo(350, 0) : agree(drawn!.ink, theirs[i]),
  );
});

test('text is measured where poppler finds it; hidden text is not; images tell their pixels an inch', async () => {
  const document = await PDFDocument.create();
  const font = await document.embedFont(StandardFonts.Helvetica);
  const page = document.addPage([400, 300]);
  page.drawText('Ashgill', { x: 50, y: 60, size: 30, font });
  page.drawText('Tarn', { x: 250, y: 200, size: 30, font });
  const png = await sharp({ create: { width: 300, height: 150, channels: 3, background: '#246' } })
    .png()
    .toBuffer();
  page.drawImage(await document.embedPng(png), { x: 100, y: 100, width: 72, height: 72 });
  const bare = document.addPage([400, 300]);
  bare.node.set(PDFName.of('Resources'), page.node.Resources()!);
  const name = page.node
    .Resources()!
    .lookup(PDFName.of('Font'))!
    .toString()
    .match(/\/(\S+) \d+ 0 R/)![1];
  bare.node.set(
    PDFName.of('Contents'),
    document.context.register(
      document.context.flateStream(
        `0 0 1 rg 10 10 300 200 re f BT 3 Tr /${name} 20 Tf 50 50 Td (hidden) Tj ET`,
      ),
    ),
  );
  const bytes = await document.save({ useObjectStreams: false });
  const [first, second] = await measure(bytes);
  // By arithmetic: 150 pixels down one inch are the coarser way.
  expect(first!.drawn!.ppi).toBeCloseTo(150, 1);
  expect(second!.drawn!.text).toBeUndefined();
  const sides = [
    ...tool('pdftotext', '-bbox', '-l', '1', keep(bytes), '-').matchAll(
      /xMin="([\d.]+)" yMin="[\d.]+" xMax="([\d.]+)"/g,
    ),
  ];
  const [from, to] = [
    Math.min(...sides.map(([, x]) => Number(x))),
    Math.max(...sides.map(([, , x]) => Number(x))),
  ];
  const { text } = first!.drawn!;
  // Poppler's words are as wide as their advance; the glyphs lie within, less their side bearings.
  for (const [ours, theirs] of [
    [text!.x0, from],
    [text!.x1, to],
  ])
    expect(Math.abs(ours! - theirs!)).toBeLessThan(3);
  expect(text!.x0).toBeGreaterThanOrEqual(from - 0.5);
  expect(text!.x1).toBeLessThanOrEqual(to + 0.5);
  // The base lines are at 60 and 200; Helvetica's g hangs about a fifth of its size below, its T stands 0.72 above.
  expect(text!.y0).toBeCloseTo(60 - 0.22 * 30, 0);
  expect(text!.y1).toBeCloseTo(200 + 0.72 * 30, 0);
});

test('what stands on a page by itself: text that shows as blocks, images, drawings in forms too; no grounds', async () => {
  const document = await PDFDocument.create();
  const font = await document.embedFont(StandardFonts.Helvetica);
  const page = document.addPage([400, 300]);
  page.setRotation(degrees(90));
  page.drawRectangle({ x: 0, y: 0, width: 400, height: 300, color: rgb(0.9, 0.9, 1) });
  ['One line and', 'another of it'].forEach((text, n) =>
    page.drawText(text, { x: 40, y: 240 - 14 * n, size: 12, font }),
  );
  page.drawText('7', { x: 370, y: 20, size: 12, font });
  const form = document.context.register(
    document.context.stream('0 0 30 10 re f', {
      Type: 'XObject',
      Subtype: 'Form',
      BBox: [0, 0, 99, 99],
      Matrix: [2, 0, 0, 2, 0, 0],
    }),
  );
  const drawing = page.node.newXObject('Box', form);
  page.node.normalize();
  page.node.addContentStream(
    document.context.register(document.context.stream(`\nq 1 0 0 1 100 50 cm ${String(drawing)} Do Q`)),
  );
  const [measured] = await measure(await document.save({ useObjectStreams: false }));
  const { objects } = measured!.drawn!;
  expect(objects!.map(({ kind }) => kind)).toEqual(['text', 'text', 'path']);
  const [block, seven, box] = objects!.map((object) => object.box);
  // As the page is seen, turned clockwise: what was x runs down from the head, which is 400 above the foot.
  expect(box).toEqual({ x0: 50, x1: 70, y0: 240, y1: 300 });
  expect(block!.x1 - block!.x0).toBeGreaterThan(20);
  expect(block!.y1).toBeCloseTo(400 - 40, -1);
  expect(seven!.y1).toBeLessThan(400 - 369);
});

test('a file of which only the parts asked for are read is drawn as one that is read whole; one that breaks off is told', async () => {
  const renderer = await startRenderer();
  const { bytes } = firstOf((await drawDemoSources()).sort((a, b) => b.bytes.length - a.bytes.length));
  const page = (await surveyPdf(bytes)).pages[0]!;
  let given = 0;
  const parts = renderer.openParts(bytes.length, (from, count) => {
    given += count;
    return bytes.subarray(from, from + count);
  });
  const whole = renderer.open(bytes);
  const draw = (pdf: typeof whole) => pdf.render(0, mediaBoxOf(page), 300, 400);
  expect(Buffer.compare(Buffer.from(draw(parts).rgba), Buffer.from(draw(whole).rgba))).toBe(0);
  expect(given).toBeGreaterThan(0);
  expect(given).toBeLessThan(bytes.length);
  parts.close();
  whole.close();
  const gone = () => {
    throw new Error('away');
  };
  expect(() => renderer.openParts(bytes.length, gone)).toThrow('cannot read');
});
