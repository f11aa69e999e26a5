import type { WrappedPdfiumModule } from '@embedpdf/pdfium';
import { pdfiumWasm } from './nodeRenderer';
import { startPdfium, WHAT_PRINTS } from './pdfium';

/** Why a document cannot be written plainly. */
export class RewriteError extends Error {
  constructor(
    readonly code: 'damaged' | 'needs-password' | 'needs-key' | 'no-pages' | 'page-unreadable',
    readonly data: Record<string, string | number> = {},
  ) {
    super(code);
  }
}

let started: Promise<WrappedPdfiumModule> | undefined;

/** What FPDF_GetLastError tells of a file that does not open. */
const [NEEDS_PASSWORD, OTHER_SECURITY] = [4, 5];
/** How FPDF_SaveAsCopy writes: all of it anew, without its encryption. */
const PLAINLY = 3;
/** What FPDFPage_Flatten gives back where it failed. */
const FLATTEN_FAILED = 0;

/**
 * The same document written plainly, by PDFium: decrypted, put together anew where its cross-references are wrong, stream
 * lengths right. With `printed`, annotations and form fields that are meant to print become content of their pages (ISO
 * 32000-1, 12.5.3 and 12.5.5). A file that opens only with a password (7.6.3) is opened with that. Throws RewriteError.
 */
export async function rewritePdf(bytes: Uint8Array, printed = false, password = ''): Promise<Uint8Array> {
  const p = await (started ??= pdfiumWasm().then(startPdfium));
  const at = p.pdfium.wasmExports.malloc(bytes.length);
  if (!at) throw new RewriteError('damaged', { reason: 'not enough memory to open the file' });
  p.pdfium.HEAPU8.set(bytes, at);
  const document = p.FPDF_LoadMemDocument(at, bytes.length, password);
  try {
    if (!document) {
      const error = p.FPDF_GetLastError();
      if (error === NEEDS_PASSWORD) throw new RewriteError('needs-password');
      if (error === OTHER_SECURITY) throw new RewriteError('needs-key');
      throw new RewriteError('damaged', { reason: `error ${error}` });
    }
    if (!p.FPDF_GetPageCount(document)) throw new RewriteError('no-pages');
    if (printed) drawPrinted(p, document);
    return saved(p, document);
  } finally {
    if (document) p.FPDF_CloseDocument(document);
    p.pdfium.wasmExports.free(at);
  }
}

function drawPrinted(p: WrappedPdfiumModule, document: number): void {
  for (let index = 0, count = p.FPDF_GetPageCount(document); index < count; index++) {
    const page = p.FPDF_LoadPage(document, index);
    if (!page) continue;
    const done = p.FPDFPage_Flatten(page, WHAT_PRINTS);
    p.FPDF_ClosePage(page);
    if (done === FLATTEN_FAILED) throw new RewriteError('page-unreadable', { page: index + 1 });
  }
}

function saved(p: WrappedPdfiumModule, document: number): Uint8Array {
  const writer = p.PDFiumExt_OpenFileWriter();
  try {
    p.FPDF_SaveAsCopy(document, writer, PLAINLY);
    const size = p.PDFiumExt_GetFileWriterSize(writer);
    const to = p.pdfium.wasmExports.malloc(size);
    p.PDFiumExt_GetFileWriterData(writer, to, size);
    const made = p.pdfium.HEAPU8.slice(to, to + size);
    p.pdfium.wasmExports.free(to);
    return made;
  } finally {
    p.PDFiumExt_CloseFileWriter(writer);
  }
}
