import { createHash } from 'node:crypto';
import type { Docket, Output } from '../core/docket/docket';
import { workOut } from '../core/checks';
import { writePagesPdf } from './pagesPdf';
import { PdfError } from './pdfError';
import { writeSheetsPdf, type WriteContext } from './sheetsPdf';

/** Works a docket out and writes one of its outputs. Throws PdfError. */
export async function writeOutput(docket: Docket, output: Output, job: Omit<WriteContext, 'id' | 'title'>): Promise<void> {
  const { list, plan } = workOut(docket, job.surveys);
  if (!plan) throw new PdfError('no-sheets');
  const id = createHash('md5').update(JSON.stringify([docket, output])).digest('hex');
  const context = { ...job, id, title: docket.title };
  if (output.kind === 'pages') await writePagesPdf(list, output.crop, context);
  else await writeSheetsPdf(plan, context);
}
