import sharp from 'sharp';
import { expect, test } from 'vitest';
import { boxesOf, keep, tool } from '../../../../tests/outside';
import { PdfError } from '../objects/pdfError';
import { isSvg, writeSvgPdf } from './svgPdf';

const svg = (attributes: string, content = '<rect x="1" y="1" width="8" height="3" fill="#0000ff"/>') =>
  Buffer.from(
    `<?xml version="1.0"?>\n<!-- made up --><svg xmlns="http://www.w3.org/2000/svg" ${attributes}>${content}</svg>\n`,
  );

// CSS counts 96 px to an inch (CSS Values and Units 3, 6.2).
test.each<[string, number, number]>([
  ['width="96" height="48px" viewBox="0 0 10 5"', 72, 36],
  ['width="25.4mm" height="1.27cm" viewBox="0 0 10 5"', 72, 36],
  ['width="1in" height="3pc" viewBox="0 0 10 5"', 72, 36],
  ['viewBox="0 0 10 5"', 7.5, 3.75],
])(
  'a drawing of %s is %f × %f points, its lines where they were drawn (poppler)',
  async (attributes, width, height) => {
    expect(isSvg(svg(attributes))).toBe(true);
    const path = keep(await writeSvgPdf(svg(attributes)));
    const [, , x1, y1] = boxesOf(path)[0]!.MediaBox!;
    expect(Math.abs(x1! - width)).toBeLessThan(0.01);
    expect(Math.abs(y1! - height)).toBeLessThan(0.01);
    if (width < 72) return;
    tool('pdftoppm', '-r', '72', '-png', '-singlefile', path, path);
    const { data, info } = await sharp(`${path}.png`)
      .removeAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    const at = (x: number, y: number) => [
      ...data.subarray(3 * (y * info.width + x), 3 * (y * info.width + x) + 3),
    ];
    // The box is from 1 to 9 of 10 across and 1 to 4 of 5 down.
    expect(at(36, 18)).toEqual([0, 0, 255]);
    expect([at(3, 18), at(36, 3), at(68, 18), at(36, 33)]).toEqual(Array(4).fill([255, 255, 255]));
  },
);

test.each<[string, Buffer, string]>([
  [
    'one with live text, whose face is not there',
    svg('width="9" height="9"', '<text x="1" y="1">Moor</text>'),
    'svg-not-lines',
  ],
  [
    'one that shows a picture from elsewhere',
    svg('width="9" height="9"', '<image href="http://127.0.0.1/x.png"/>'),
    'svg-not-lines',
  ],
  ['one with a program', svg('width="9" height="9"', '<script>1</script>'), 'svg-not-lines'],
  ['one without a size', svg(''), 'svg-damaged'],
  ['one larger than any sheet', svg('width="900in" height="9in"'), 'svg-damaged'],
  ['one cut short', svg('width="9" height="9"').subarray(0, 80), 'svg-damaged'],
])('refused: %s', async (_, bytes, code) => {
  await expect(writeSvgPdf(bytes)).rejects.toMatchObject({ code });
  await expect(writeSvgPdf(bytes)).rejects.toBeInstanceOf(PdfError);
});

test.each(['%PDF-1.7 <svg', '{"svg": "<svg>"}', 'plain words'])('no drawing: %s', (text) => {
  expect(isSvg(Buffer.from(text))).toBe(false);
});
