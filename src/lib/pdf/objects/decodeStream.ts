import {
  decodePDFRawStream,
  PDFArray,
  PDFContext,
  PDFName,
  PDFRawStream,
  type PDFDict,
  type PDFObject,
} from '@cantoo/pdf-lib';
import { inflated } from './inflate';

/** The bytes of a stream with its filters undone, as far as viewers can. Throws PdfError `unpacks-too-large` past `most` bytes. */
export const decodeStream = (stream: PDFObject | undefined, most?: number): Uint8Array =>
  decoded(stream, most).bytes;

/** The same, and whether that is all of it. */
export function decoded(stream: PDFObject | undefined, most?: number): { bytes: Uint8Array; whole: boolean } {
  if (!(stream instanceof PDFRawStream)) return { bytes: new Uint8Array(), whole: true };
  const filter = stream.dict.lookup(PDFName.of('Filter'));
  if (!filter) return { bytes: stream.getContents(), whole: true };
  const only = filter instanceof PDFArray ? (filter.size() === 1 ? filter.lookup(0) : undefined) : filter;
  if (only !== PDFName.of('FlateDecode') || stream.dict.has(PDFName.of('DecodeParms')))
    try {
      return { bytes: decodePDFRawStream(withLongNames(stream)).decode(), whole: true };
    } catch {
      // What viewers cannot unpack either is not there.
      return { bytes: new Uint8Array(), whole: false };
    }
  return inflatedOnce(stream.getContents(), most);
}

/**
 * What was unpacked last: of a page's content several things are asked, one after another. Larger ones are not held, nor is the
 * file that the packed bytes lie in.
 */
let last: { packed: WeakRef<Uint8Array>; found: ReturnType<typeof inflated> } | undefined;
const MOST_HELD = 1024 * 1024;
function inflatedOnce(packed: Uint8Array, most?: number): ReturnType<typeof inflated> {
  if (last?.packed.deref() === packed && last.found.bytes.length <= (most ?? MOST_HELD)) return last.found;
  const found = inflated(packed, most);
  last = found.bytes.length <= MOST_HELD ? { packed: new WeakRef(packed), found } : undefined;
  return found;
}

/** Names of filters cut short, as inline images have them (ISO 32000-1, table 94) and some programs everywhere. */
const LONG_NAMES: Readonly<Record<string, string>> = {
  AHx: 'ASCIIHexDecode',
  A85: 'ASCII85Decode',
  LZW: 'LZWDecode',
  Fl: 'FlateDecode',
  RL: 'RunLengthDecode',
  CCF: 'CCITTFaxDecode',
  DCT: 'DCTDecode',
};
const longName = (name: string): string => LONG_NAMES[name] ?? name;

/** The stream with the names of its filters written out. */
function withLongNames(stream: PDFRawStream): PDFRawStream {
  const filter = stream.dict.lookup(PDFName.of('Filter'));
  const names = (
    filter instanceof PDFArray ? filter.asArray().map((_, n) => filter.lookup(n)) : [filter]
  ).map((name) => (name instanceof PDFName ? name.decodeText() : ''));
  if (!names.some((name) => name in LONG_NAMES)) return stream;
  const dict = stream.dict.clone();
  dict.set(PDFName.of('Filter'), dict.context.obj(names.map(longName)));
  return PDFRawStream.of(dict, stream.getContents());
}

/** Undoes filters by their names, one after the other. Throws Error if one is unknown or its data are damaged. */
export function decodeFilters(bytes: Uint8Array, names: readonly string[]): Uint8Array {
  const dict = PDFContext.create().obj({ Filter: names.map(longName) });
  return decodePDFRawStream(PDFRawStream.of(dict, bytes)).decode();
}

/** The streams of a page's content. */
export function streamsOf(page: PDFDict): PDFRawStream[] {
  const contents = page.lookup(PDFName.of('Contents'));
  const parts =
    contents instanceof PDFArray ? contents.asArray().map((_, n) => contents.lookup(n)) : [contents];
  return parts.filter((part) => part instanceof PDFRawStream);
}

/** The content of a page: its streams unpacked, one after another, with white space between (ISO 32000-1, 7.8.2). */
export const pageContent = (page: PDFDict): Buffer =>
  Buffer.concat(streamsOf(page).flatMap((part) => [decodeStream(part), Buffer.from('\n')]));
