import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { PDFDocument, PDFName, PDFRawStream, StandardFonts } from '@cantoo/pdf-lib';
import sharp from 'sharp';

/** A file in a folder with pages of running text, each with a stream of its own: about 2 kB packed. */
export async function textFile(pages: number, folder: string): Promise<string> {
  const document = await PDFDocument.create();
  const font = await document.embedFont(StandardFonts.Helvetica);
  let seed = 7;
  const word = () => (seed = (seed * 16807) % 2147483647).toString(36);
  for (let n = 1; n <= pages; n++) {
    const page = document.addPage([420, 595]);
    page.setFont(font);
    for (let line = 0; line < 42; line++)
      page.drawText(Array.from({ length: 9 }, word).join(' '), { x: 40, y: 555 - line * 12, size: 9 });
    page.drawText(String(n), { x: 200, y: 20, size: 9 });
  }
  const path = join(folder, `${pages}.pdf`);
  writeFileSync(path, await document.save({ useObjectStreams: false }));
  return path;
}

/** Pages that are a photograph each, of about 2 MB: noise, which nothing packs. */
export async function heavyFile(pages: number, folder: string): Promise<string> {
  const document = await PDFDocument.create();
  const [width, height] = [1240, 1754];
  const noise = Buffer.alloc(width * height * 3);
  for (let n = 0, seed = 7; n < noise.length; n++) noise[n] = (seed = (seed * 16807) % 2147483647) & 0xff;
  const jpeg = await sharp(noise, { raw: { width, height, channels: 3 } })
    .jpeg({ quality: 80 })
    .toBuffer();
  for (let n = 0; n < pages; n++) {
    // A comment behind the start of the image makes each another one.
    const comment = Buffer.from([0xff, 0xfe, 0, 6, n >> 8, n & 0xff, 1, 1]);
    const bytes = Buffer.concat([jpeg.subarray(0, 2), comment, jpeg.subarray(2)]);
    const { context } = document;
    const image = PDFRawStream.of(
      context.obj({
        Type: 'XObject',
        Subtype: 'Image',
        Width: width,
        Height: height,
        ColorSpace: 'DeviceRGB',
        BitsPerComponent: 8,
        Filter: 'DCTDecode',
      }),
      bytes,
    );
    const page = document.addPage([420, 595]);
    page.node.setXObject(PDFName.of('Im'), context.register(image));
    page.node.set(
      PDFName.of('Contents'),
      context.register(context.flateStream('q 420 0 0 595 0 0 cm /Im Do Q')),
    );
  }
  const path = join(folder, 'heavy.pdf');
  writeFileSync(path, await document.save({ useObjectStreams: false }));
  return path;
}

/** The middle of some figures. */
export const median = (values: number[]): number =>
  values.sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
