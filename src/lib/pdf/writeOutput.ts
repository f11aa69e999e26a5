import { createHash } from 'node:crypto';
import type { Docket, Output } from '../core/docket/docket';
import { replay } from '../core/docket/replay';
import { planSheets } from '../core/sheets';
import { PdfError } from './pdfError';
import { writeSheetsPdf, type WriteContext } from './sheetsPdf';

/** Works a docket out and writes one of its outputs. Throws PdfError. */
export async function writeOutput(
  docket: Docket,
  output: Output,
  job: Omit<WriteContext, 'id' | 'title'>,
): Promise<void> {
  const { list } = replay(docket, job.surveys);
  if (!list.pages.length) throw new PdfError('no-pages-in-job');
  const id = createHash('md5')
    .update(JSON.stringify([docket, output]))
    .digest('hex');
  const context = { ...job, id, title: docket.title, inks: list.inks };
  // The sheet writer does without the PDF library, so that is only loaded where it is needed.
  if (output.kind === 'pages') await (await import('./pagesPdf')).writePagesPdf(list, output.crop, context);
  else {
    const plan = planSheets(list, docket.scheme);
    if (!plan) throw new PdfError('no-sheets');
    await writeSheetsPdf(plan, context);
  }
}
