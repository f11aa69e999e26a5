import { PDFDocument, PDFName, PDFRawStream, degrees, type PDFPage } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { expect, test } from 'vitest';
import { surveyPdf } from '../pdf/read/survey';
import { mediaBoxOf } from './mediaBox';
import { startRenderer } from './nodeRenderer';

const [WIDE, HIGH] = [200, 280];
/** A picture that looks different however it is turned, mirrored or inverted. */
async function picture(channels: 1 | 3 | 4, turned = false): Promise<Buffer> {
  const [width, height] = [400, 560];
  const dots = Buffer.alloc(width * height * channels);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      for (let c = 0; c < channels; c++)
        dots[(y * width + x) * channels + c] = [
          (x * 255) / width,
          (y * 255) / height,
          x < 90 && y < 60 ? 0 : 200,
          30,
        ][c]!;
  const image = sharp(dots, { raw: { width, height, channels } });
  const spaced =
    channels === 1 ? image.toColourspace('b-w') : channels === 4 ? image.toColourspace('cmyk') : image;
  return (turned ? spaced.withMetadata({ orientation: 6 }) : spaced).jpeg({ quality: 92 }).toBuffer();
}

interface Way {
  jpeg?: Buffer;
  entries?: Record<string, unknown>;
  content?: string;
  change?: (page: PDFPage, document: PDFDocument) => void;
}
const PLACED = `q ${WIDE} 0 0 ${HIGH} 0 0 cm /Im Do Q`;
async function pdfOf(ways: readonly Way[]): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  const { context } = document;
  const plain = await picture(3);
  for (const { jpeg = plain, entries = {}, content = PLACED, change } of ways) {
    const page = document.addPage([WIDE, HIGH]);
    const dict = context.obj({
      ...{ Type: 'XObject', Subtype: 'Image', Width: 400, Height: 560, BitsPerComponent: 8 },
      ...{ ColorSpace: 'DeviceRGB', Filter: 'DCTDecode' },
      ...(entries as Record<string, string>),
    });
    page.node.setXObject(PDFName.of('Im'), context.register(PDFRawStream.of(dict, jpeg)));
    page.node.set(PDFName.of('Contents'), context.register(context.flateStream(content)));
    change?.(page, document);
  }
  return document.save({ useObjectStreams: false });
}

/** Those that are nothing but their JPEG, upright on the whole page. */
const PLAIN: Way[] = [
  {},
  { content: `${WIDE / 400} 0 0 ${HIGH / 560} 0 0 cm q 400 0 0 560 0 0 cm\n/Im Do\nQ` },
  { jpeg: await picture(1), entries: { ColorSpace: 'DeviceGray' } },
  { jpeg: await picture(3, true) },
  { entries: { Filter: ['DCTDecode'] } },
  { change: (page) => page.node.set(PDFName.of('UserUnit'), page.doc.context.obj(2)) },
];
const OTHER: Way[] = [
  { content: `q -${WIDE} 0 0 ${HIGH} ${WIDE} 0 cm /Im Do Q` },
  { content: `q 0 ${HIGH} -${WIDE} 0 ${WIDE} 0 cm /Im Do Q` },
  { content: `q ${WIDE - 20} 0 0 ${HIGH} 0 0 cm /Im Do Q` },
  { content: `${PLACED} 0 0 50 50 re f` },
  { content: `${PLACED} q 140 0 0 140 20 20 cm /Im Do Q` },
  { content: `0 0 60 280 re W n ${PLACED}` },
  { entries: { Decode: [1, 0, 1, 0, 1, 0] } },
  { entries: { Mask: [0, 60, 0, 255, 0, 255] } },
  { jpeg: await picture(4), entries: { ColorSpace: 'DeviceCMYK' } },
  { change: (page) => page.setRotation(degrees(90)) },
  {
    change: (page, { context }) => {
      const mask = context.register(
        context.flateStream(new Uint8Array(4).fill(120), {
          ...{ Type: 'XObject', Subtype: 'Image', Width: 2, Height: 2 },
          ...{ ColorSpace: 'DeviceGray', BitsPerComponent: 8 },
        }),
      );
      const images = page.node.Resources()!.lookup(PDFName.of('XObject'));
      const image = (images as unknown as { lookup: (name: PDFName) => PDFRawStream }).lookup(
        PDFName.of('Im'),
      );
      image.dict.set(PDFName.of('SMask'), mask);
    },
  },
];

test('where a photograph is said to be all of a page, it looks as the page does; where it is not, nothing is said', async () => {
  const bytes = await pdfOf([...PLAIN, ...OTHER]);
  const { pages } = await surveyPdf(bytes);
  expect(pages.map(({ jpeg }) => !!jpeg)).toEqual([...PLAIN.map(() => true), ...OTHER.map(() => false)]);
  const pdf = (await startRenderer()).open(bytes);
  for (const [index, page] of pages.entries()) {
    const { rgba } = pdf.render(index, mediaBoxOf(page), WIDE, HIGH);
    const jpeg = page.jpeg ? bytes.slice(...page.jpeg) : await picture(3);
    const dots = await sharp(jpeg)
      .removeAlpha()
      .toColourspace('srgb')
      .resize(WIDE, HIGH, { fit: 'fill' })
      .raw()
      .toBuffer();
    let off = 0;
    for (let n = 0; n < WIDE * HIGH; n++)
      for (let c = 0; c < 3; c++) off += Math.abs(rgba[4 * n + c]! - dots[3 * n + c]!) / (WIDE * HIGH * 3);
    // The others are such that they would look wrong.
    if (page.jpeg) expect(off, `page ${index + 1}`).toBeLessThan(3);
    else expect(off, `page ${index + 1}`).toBeGreaterThan(3);
  }
  pdf.close();
});
