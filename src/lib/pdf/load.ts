import { PDFDocument, ParseSpeeds } from '@cantoo/pdf-lib';
import { PdfError } from './pdfError';

/** The header must stand in the first 1,024 bytes, as readers have always allowed (ISO 32000-1, annex H.3, note 13). */
const HEADER_WITHIN = 1024;

/** Opens a PDF; one encrypted with an owner password only is decrypted. Throws PdfError. */
export async function loadPdf(bytes: Uint8Array): Promise<PDFDocument> {
  if (!bytes.length) throw new PdfError('empty-file');
  if (!startsAsPdf(bytes)) throw new PdfError('not-a-pdf');
  try {
    const document = await PDFDocument.load(bytes, {
      parseSpeed: ParseSpeeds.Fastest,
      updateMetadata: false,
      password: '',
    });
    if (!document.catalog) throw new PdfError('damaged');
    return document;
  } catch (error) {
    if (error instanceof PdfError) throw error;
    if (/password/i.test(String(error))) throw new PdfError('needs-password');
    throw new PdfError('damaged', { reason: String(error).slice(0, 200) });
  }
}

/** True when the bytes begin as a PDF does. */
export const startsAsPdf = (bytes: Uint8Array): boolean =>
  Buffer.from(bytes.buffer, bytes.byteOffset, Math.min(bytes.length, HEADER_WITHIN)).includes('%PDF-');
