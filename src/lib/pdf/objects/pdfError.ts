export type PdfErrorCode =
  | 'empty-file'
  | 'not-a-pdf'
  | 'needs-password'
  | 'needs-key'
  | 'damaged'
  | 'no-pages'
  | 'page-unreadable'
  | 'bad-page-box'
  | 'page-too-large'
  | 'too-many-pages'
  | 'unpacks-too-large'
  | 'svg-damaged'
  | 'svg-not-lines'
  | 'source-changed'
  | 'no-pages-in-job'
  | 'no-sheets'
  | 'nothing-to-clean';

/** Why a PDF was refused; `data.page` counts from 1. */
export class PdfError extends Error {
  constructor(
    readonly code: PdfErrorCode,
    readonly data: Record<string, string | number> = {},
  ) {
    super(code);
  }
}
