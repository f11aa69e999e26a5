import { constants, inflateSync } from 'node:zlib';
import {
  decodePDFRawStream,
  PDFArray,
  PDFName,
  PDFRawStream,
  type PDFDict,
  type PDFObject,
} from '@cantoo/pdf-lib';
import { PdfError } from './pdfError';

/** Most bytes that one stream may unpack to. */
export const MOST_UNPACKED = 256 * 1024 * 1024;

/** The bytes of a stream with its filters undone. Throws PdfError `unpacks-too-large` past MOST_UNPACKED. */
export function decodeStream(stream: PDFObject | undefined, most = MOST_UNPACKED): Uint8Array {
  if (!(stream instanceof PDFRawStream)) return new Uint8Array();
  const filter = stream.dict.lookup(PDFName.of('Filter'));
  if (!filter) return stream.getContents();
  const only = filter instanceof PDFArray ? (filter.size() === 1 ? filter.lookup(0) : undefined) : filter;
  if (only !== PDFName.of('FlateDecode') || stream.dict.has(PDFName.of('DecodeParms')))
    return decodePDFRawStream(stream).decode();
  try {
    // A stream cut short still shows what it has, as viewers do.
    return inflateSync(stream.getContents(), { maxOutputLength: most, finishFlush: constants.Z_SYNC_FLUSH });
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ERR_BUFFER_TOO_LARGE')
      throw new PdfError('unpacks-too-large');
    return new Uint8Array();
  }
}

/** The content of a page: its streams unpacked, one after another, with white space between (ISO 32000-1, 7.8.2). */
export function pageContent(page: PDFDict): Buffer {
  const contents = page.lookup(PDFName.of('Contents'));
  const parts =
    contents instanceof PDFArray ? contents.asArray().map((_, n) => contents.lookup(n)) : [contents];
  return Buffer.concat(parts.flatMap((part) => [decodeStream(part), Buffer.from('\n')]));
}
