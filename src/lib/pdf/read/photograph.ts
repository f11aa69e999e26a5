import { PDFArray, PDFDict, PDFName, PDFNumber, PDFRawStream } from '@cantoo/pdf-lib';
import { applyToBox, compose, IDENTITY, type Matrix } from '../../core/measure/matrix';
import { TOLERANCES } from '../../core/measure/tolerances';
import type { SurveyPage } from '../../core/model/survey';
import { jpegFrame } from '../../raster/jpegFrame';
import { operationsOf } from '../content/operations';
import { pageContent } from '../objects/decodeStream';
import type { SourcePage } from './pageTree';

/** Content that is longer, packed, than this many bytes does more than place a picture. */
const MOST_CONTENT = 400;
/** How many colours a dot has in the spaces that every viewer takes alike (ISO 32000-1, 8.6.4). */
const COLOURS: Readonly<Record<string, number>> = { DeviceGray: 1, DeviceRGB: 3 };
/** Entries by which an image is more than its JPEG (8.9.5, table 89). */
const MORE = ['Decode', 'DecodeParms', 'ImageMask', 'Mask', 'OC', 'SMask', 'SMaskInData'];

/**
 * Where the JPEG lies in a file that is all that a page shows: upright, filling it, in colours that every viewer takes alike. From
 * a byte up to and without another. Undefined for any other page, and where the file is not read as it lies.
 */
export function photographOn(
  page: SourcePage,
  { boxes: { media }, rotate, toUpright }: SurveyPage,
  bytes: Uint8Array,
): [from: number, to: number] | undefined {
  const placed = rotate ? undefined : placedOn(page.dict);
  const resources =
    page.dict.lookup(PDFName.of('Resources')) ?? page.dict.context.lookup(page.inherited.Resources);
  if (!placed || !(resources instanceof PDFDict)) return undefined;
  const lies = applyToBox(compose(placed.matrix, toUpright), { x0: 0, y0: 0, x1: 1, y1: 1 });
  const [across, up, right, higher] = placed.matrix;
  const isUpright = across > 0 && higher > 0 && !up && !right;
  const off = [lies.x0 - media.x0, lies.y0 - media.y0, lies.x1 - media.x1, lies.y1 - media.y1];
  if (!isUpright || off.some((by) => Math.abs(by) > TOLERANCES.fills)) return undefined;
  const images = resources.lookup(PDFName.of('XObject'));
  const image = images instanceof PDFDict ? images.lookup(PDFName.of(placed.name)) : undefined;
  if (!(image instanceof PDFRawStream) || !isPlain(image, resources)) return undefined;
  const { buffer, byteOffset, length } = image.getContents();
  const from = byteOffset - bytes.byteOffset;
  // Of what was unpacked, or written plainly first, nothing lies in the file itself.
  return buffer === bytes.buffer && from >= 0 && from + length <= bytes.length
    ? [from, from + length]
    : undefined;
}

/** The one picture that a page's content places, and how; undefined where it does anything else. */
function placedOn(page: PDFDict): { name: string; matrix: Matrix } | undefined {
  const contents = page.lookup(PDFName.of('Contents'));
  const only = contents instanceof PDFArray && contents.size() === 1 ? contents.lookup(0) : contents;
  if (!(only instanceof PDFRawStream) || only.getContentsSize() > MOST_CONTENT) return undefined;
  let [matrix, found]: [Matrix, { name: string; matrix: Matrix } | undefined] = [IDENTITY, undefined];
  const kept: Matrix[] = [];
  for (const { operator, operands } of operationsOf(pageContent(page).toString('latin1'))) {
    if (operator === 'q') kept.push(matrix);
    else if (operator === 'Q') matrix = kept.pop() ?? IDENTITY;
    else if (operator === 'cm') {
      const numbers = operands.map(Number);
      if (numbers.length !== 6 || numbers.some((number) => !Number.isFinite(number))) return undefined;
      matrix = compose(numbers as unknown as Matrix, matrix);
    } else if (operator === 'Do' && !found) found = { name: operands[0]?.slice(1) ?? '', matrix };
    else return undefined;
  }
  return found;
}

/** Whether an image is a JPEG and nothing besides, in a plain space of as many colours as it has. */
function isPlain(image: PDFRawStream, resources: PDFDict): boolean {
  const { dict } = image;
  const named = (key: string) => {
    const value = dict.lookup(PDFName.of(key));
    const one = value instanceof PDFArray && value.size() === 1 ? value.lookup(0) : value;
    return one instanceof PDFName ? one.decodeText() : '';
  };
  const spaces = resources.lookup(PDFName.of('ColorSpace'));
  // A page may say what it takes plain spaces for (8.6.5.6).
  const isOther =
    spaces instanceof PDFDict && ['DefaultGray', 'DefaultRGB'].some((key) => spaces.has(PDFName.of(key)));
  const bits = dict.lookup(PDFName.of('BitsPerComponent'));
  return (
    named('Subtype') === 'Image' &&
    named('Filter') === 'DCTDecode' &&
    !isOther &&
    MORE.every((key) => !dict.has(PDFName.of(key))) &&
    bits instanceof PDFNumber &&
    bits.asNumber() === 8 &&
    jpegFrame(image.getContents())?.colours === (COLOURS[named('ColorSpace')] ?? 0)
  );
}
