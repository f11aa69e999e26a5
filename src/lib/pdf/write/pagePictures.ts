import {
  PDFArray,
  PDFDict,
  PDFName,
  PDFNumber,
  PDFRawStream,
  PDFRef,
  type PDFContext,
} from '@cantoo/pdf-lib';
import { decodeStream } from '../objects/decodeStream';
import { loadPdf } from '../read/load';

/** The picture on a page: its size in dots, its colours, and its dots as they are or as a JPEG. */
export interface PagePicture {
  width: number;
  height: number;
  colours: 1 | 3;
  dots?: Uint8Array;
  jpeg?: Uint8Array;
}

/** Forms within forms are looked through so far. */
const DEEPEST = 4;

/**
 * A copy of a PDF in which the largest picture of some pages (from 0) is another one, of the same size and colours, as a JPEG.
 * Everything else stays as it is. `change` gives undefined for a picture that is to stay. Also the pages whose picture changed.
 * Throws PdfError.
 */
export async function changePictures(
  bytes: Uint8Array,
  pages: readonly number[],
  change: (picture: PagePicture, page: number) => Promise<Uint8Array | undefined>,
): Promise<{ bytes: Uint8Array; changed: number[] }> {
  const document = await loadPdf(bytes);
  const { context } = document;
  const known = new Map<PDFRef, boolean>();
  const changed: number[] = [];
  for (const page of pages) {
    const ref = largestIn(document.getPage(page).node.Resources(), context, DEEPEST)?.ref;
    if (!ref) continue;
    if (!known.has(ref)) known.set(ref, await changeOne(context, ref, (picture) => change(picture, page)));
    if (known.get(ref)) changed.push(page);
  }
  return { bytes: await document.save({ useObjectStreams: false, updateFieldAppearances: false }), changed };
}

const numberIn = (dict: PDFDict, key: string): number => {
  const value = dict.lookup(PDFName.of(key));
  return value instanceof PDFNumber ? value.asNumber() : 0;
};

function largestIn(
  resources: PDFDict | undefined,
  context: PDFContext,
  deep: number,
): { ref: PDFRef; dots: number } | undefined {
  const objects = resources?.lookup(PDFName.of('XObject'));
  if (!(objects instanceof PDFDict) || !deep) return undefined;
  let largest: { ref: PDFRef; dots: number } | undefined;
  for (const [, ref] of objects.entries()) {
    const stream = context.lookup(ref);
    if (!(ref instanceof PDFRef) || !(stream instanceof PDFRawStream)) continue;
    const kind = stream.dict.lookup(PDFName.of('Subtype'));
    const inner = stream.dict.lookup(PDFName.of('Resources'));
    const found =
      kind === PDFName.of('Image')
        ? { ref, dots: numberIn(stream.dict, 'Width') * numberIn(stream.dict, 'Height') }
        : inner instanceof PDFDict
          ? largestIn(inner, context, deep - 1)
          : undefined;
    if (found && found.dots > (largest?.dots ?? 0)) largest = found;
  }
  return largest;
}

async function changeOne(
  context: PDFContext,
  ref: PDFRef,
  change: (picture: PagePicture) => Promise<Uint8Array | undefined>,
): Promise<boolean> {
  const stream = context.lookup(ref);
  const picture = stream instanceof PDFRawStream && pictureIn(stream);
  const made = picture && (await change(picture));
  if (!made) return false;
  const dict = stream.dict.clone(context);
  dict.delete(PDFName.of('DecodeParms'));
  dict.set(PDFName.of('Filter'), PDFName.of('DCTDecode'));
  dict.set(PDFName.of('Length'), PDFNumber.of(made.length));
  context.assign(ref, PDFRawStream.of(dict, made));
  return true;
}

/** An image whose dots can be told: 8 bits of grey or RGB (ISO 32000-1, 8.9.5), plainly, with no mask and no decoding of its own. */
function pictureIn(stream: PDFRawStream): PagePicture | undefined {
  const { dict } = stream;
  const [width, height] = [numberIn(dict, 'Width'), numberIn(dict, 'Height')];
  const colours = coloursOf(dict);
  const odd = ['SMask', 'Mask', 'ImageMask', 'Decode'].some((key) => dict.has(PDFName.of(key)));
  if (odd || !colours || numberIn(dict, 'BitsPerComponent') !== 8) return undefined;
  const filter = dict.lookup(PDFName.of('Filter'));
  if (filter === PDFName.of('DCTDecode')) return { width, height, colours, jpeg: stream.getContents() };
  const dots = decodeStream(stream);
  return dots.length >= width * height * colours ? { width, height, colours, dots } : undefined;
}

function coloursOf(dict: PDFDict): 1 | 3 | undefined {
  const space = dict.lookup(PDFName.of('ColorSpace'));
  if (space === PDFName.of('DeviceGray')) return 1;
  if (space === PDFName.of('DeviceRGB')) return 3;
  // [/ICCBased stream], 8.6.5.5; [/CalGray ..], [/CalRGB ..].
  const list = space instanceof PDFArray ? space : undefined;
  const [kind, profile] = [list?.lookup(0), list?.lookup(1)];
  if (kind === PDFName.of('CalGray')) return 1;
  if (kind === PDFName.of('CalRGB')) return 3;
  if (kind !== PDFName.of('ICCBased') || !(profile instanceof PDFRawStream)) return undefined;
  const count = numberIn(profile.dict, 'N');
  return count === 1 || count === 3 ? count : undefined;
}
