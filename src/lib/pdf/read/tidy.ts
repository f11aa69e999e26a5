import { RewriteError, rewritePdf } from '../../raster/rewritePdf';
import { PdfError } from '../objects/pdfError';

/** The same document written plainly; with `printed`, what is meant to print is content of its pages. Throws PdfError. */
export async function tidyPdf(bytes: Uint8Array, printed = false, password = ''): Promise<Uint8Array> {
  try {
    return await rewritePdf(bytes, printed, password);
  } catch (error) {
    if (error instanceof RewriteError) throw new PdfError(error.code, error.data);
    throw error;
  }
}
