import { expect, test } from 'vitest';
import sharp from 'sharp';
import { keep, tool } from '../../../../tests/outside';
import { surveyPdf } from '../read/survey';
import { measureSource } from '../../raster/measureSource';
import { PictureError, pictureKind, unpackPicture } from '../../raster/picture';
import { writePicturePdf } from './picturePdf';

/** A picture of 600 × 300 dots, white with a black corner at its upper left. */
const picture = (ppi?: number) => {
  const made = sharp({ create: { width: 600, height: 300, channels: 3, background: '#fff' } }).composite([
    { input: { create: { width: 100, height: 50, channels: 3, background: '#000' } }, left: 0, top: 0 },
  ]);
  return ppi ? made.withMetadata({ density: ppi }) : made;
};
const made = async (bytes: Buffer) => {
  const { images, picture } = await unpackPicture(bytes);
  const pdf = await writePicturePdf(images);
  const path = keep(pdf);
  tool('qpdf', '--check', path);
  const { pages } = await measureSource(pdf, await surveyPdf(pdf));
  const sizes = [
    ...tool('pdfinfo', '-f', '1', '-l', '99', path).matchAll(/Page\s+\d+ size:\s+([\d.]+) x ([\d.]+)/g),
  ].map(([, w, h]) => [Number(w), Number(h)]);
  return { picture, path, sizes, drawn: pages.map(({ drawn }) => drawn!) };
};

test.each([
  ['JPEG', 150, async () => picture(150).jpeg({ quality: 100 }).toBuffer()],
  ['PNG', 150, async () => picture(150).png().toBuffer()],
  ['TIFF', 150, async () => picture(150).tiff().toBuffer()],
  ['PNG', 300, async () => picture().png().toBuffer()],
] as const)('a %s comes in at %i pixels an inch', async (kind, ppi, make) => {
  const bytes = await make();
  expect(pictureKind(bytes)).toBe(kind);
  const { picture, sizes, drawn, path } = await made(bytes);
  expect([picture.kind, Math.round(picture.ppi)]).toEqual([kind, ppi]);
  // 600 × 300 dots: 4 × 2 in at 150 an inch.
  expect(sizes).toHaveLength(1);
  expect(sizes[0]![0]).toBeCloseTo((600 / ppi) * 72, 1);
  expect(sizes[0]![1]).toBeCloseTo((300 / ppi) * 72, 1);
  expect(drawn[0]!.ppi).toBeCloseTo(ppi, 0);
  // The black corner lies where it lay.
  expect(drawn[0]!.ink!.x0).toBe(0);
  expect(drawn[0]!.ink!.y1).toBeCloseTo((300 / ppi) * 72, 0);
  expect(Math.abs(drawn[0]!.ink!.x1 - (100 / ppi) * 72)).toBeLessThan(4);
  // Not one dot was resampled (poppler lists the images of a PDF).
  expect(tool('pdfimages', '-list', path)).toMatch(/\b600\s+300\b/);
});

test('a TIFF of several pages, a gray one, and a picture that lies turned by its Exif', async () => {
  const pages = await Promise.all(
    [0, 1, 2].map((n) =>
      sharp({ create: { width: 200, height: 100, channels: 3, background: { r: 80 * n, g: 0, b: 0 } } })
        .png()
        .toBuffer(),
    ),
  );
  const tiff = await sharp(pages, { join: { animated: true } })
    .tiff()
    .toBuffer();
  expect((await made(tiff)).sizes).toHaveLength(3);
  const gray = await sharp(Buffer.alloc(600 * 300, 128), { raw: { width: 600, height: 300, channels: 1 } })
    .toColourspace('b-w')
    .png()
    .toBuffer();
  expect(tool('pdfimages', '-list', (await made(gray)).path)).toMatch(/\bgray\b/);
  const turned = await picture(100).jpeg().withMetadata({ orientation: 6, density: 100 }).toBuffer();
  expect(tool('pdfinfo', (await made(turned)).path)).toMatch(/Page rot:\s+90/);
});

test('the colours of a picture stay what they are, and its profile goes along, once (poppler, qpdf)', async () => {
  const red = sharp({ create: { width: 60, height: 40, channels: 3, background: '#c83232' } });
  const withProfile = await red.clone().withIccProfile('p3').png().toBuffer();
  const { images } = await unpackPicture(withProfile);
  const path = keep(await writePicturePdf([...images, ...images]));
  expect(tool('pdfimages', '-list', path)).toMatch(/\bicc\b/);
  expect(tool('qpdf', '--qdf', '--object-streams=disable', path, '-').match(/\/ICCBased/g)).toHaveLength(2);
  expect(tool('qpdf', '--qdf', '--object-streams=disable', path, '-').match(/\/N 3\b/g)).toHaveLength(1);
  // Four inks stay four, whichever way a JPEG has them.
  const inks = sharp({ create: { width: 60, height: 40, channels: 3, background: '#c83232' } }).toColourspace(
    'cmyk',
  );
  const tiff = await inks.clone().tiff({ compression: 'lzw' }).toBuffer();
  const jpeg = await inks.clone().jpeg({ quality: 95 }).toBuffer();
  for (const bytes of [tiff, jpeg]) {
    const { path: made4 } = await made(bytes);
    expect(tool('pdfimages', '-list', made4)).toMatch(/\b(?:cmyk|icc)\s+4\b/);
    tool('pdftoppm', '-r', '72', '-png', '-singlefile', made4, made4.replace(/\.pdf$/, ''));
    const { dominant } = await sharp(made4.replace(/\.pdf$/, '.png')).stats();
    expect(dominant.r).toBeGreaterThan(dominant.b + 60);
  }
});

test('a damaged picture is refused', async () => {
  const bytes = await picture().png().toBuffer();
  await expect(unpackPicture(bytes.subarray(0, 60))).rejects.toBeInstanceOf(PictureError);
  expect(pictureKind(Buffer.from('GIF89a'))).toBeUndefined();
});
