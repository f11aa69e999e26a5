import { constants, inflateSync } from 'node:zlib';
import {
  decodePDFRawStream,
  PDFArray,
  PDFContext,
  PDFName,
  PDFRawStream,
  type PDFDict,
  type PDFObject,
} from '@cantoo/pdf-lib';
import { PdfError } from './pdfError';
import { codeOf } from '../../core/unknown';

/** Most bytes that one stream may unpack to. */
export const MOST_UNPACKED = 256 * 1024 * 1024;

/** The bytes of a stream with its filters undone. Throws PdfError `unpacks-too-large` past MOST_UNPACKED. */
export function decodeStream(stream: PDFObject | undefined, most = MOST_UNPACKED): Uint8Array {
  if (!(stream instanceof PDFRawStream)) return new Uint8Array();
  const filter = stream.dict.lookup(PDFName.of('Filter'));
  if (!filter) return stream.getContents();
  const only = filter instanceof PDFArray ? (filter.size() === 1 ? filter.lookup(0) : undefined) : filter;
  if (only !== PDFName.of('FlateDecode') || stream.dict.has(PDFName.of('DecodeParms')))
    try {
      return decodePDFRawStream(withLongNames(stream)).decode();
    } catch {
      // What viewers cannot unpack either is not there.
      return new Uint8Array();
    }
  try {
    // A stream cut short still shows what it has, as viewers do.
    return inflateSync(stream.getContents(), { maxOutputLength: most, finishFlush: constants.Z_SYNC_FLUSH });
  } catch (error) {
    if (codeOf(error) === 'ERR_BUFFER_TOO_LARGE') throw new PdfError('unpacks-too-large');
    return new Uint8Array();
  }
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

/** The content of a page: its streams unpacked, one after another, with white space between (ISO 32000-1, 7.8.2). */
export function pageContent(page: PDFDict): Buffer {
  const contents = page.lookup(PDFName.of('Contents'));
  const parts =
    contents instanceof PDFArray ? contents.asArray().map((_, n) => contents.lookup(n)) : [contents];
  return Buffer.concat(parts.flatMap((part) => [decodeStream(part), Buffer.from('\n')]));
}
