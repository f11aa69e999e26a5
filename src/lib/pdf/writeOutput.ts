import { createHash } from 'node:crypto';
import type { Docket, Output } from '../core/docket/docket';
import { replay } from '../core/docket/replay';
import type { PageList } from '../core/pages/page';
import type { Surveys } from '../core/pages/survey';
import { sheetsOf } from '../core/sheets';
import type { SheetPlan } from '../core/sheets/plan';
import { planSpreads } from '../core/sheets/spreads';
import { templateOf, templatePlan } from '../core/sheets/template';
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
    const plan = planOf(output.kind, list, docket, job.surveys);
    if (!plan) throw new PdfError('no-sheets');
    await writeSheetsPdf(plan, context);
  }
}

function planOf(
  kind: Exclude<Output['kind'], 'pages'>,
  list: PageList,
  docket: Docket,
  surveys: Surveys,
): SheetPlan | undefined {
  const { scheme, unit, safe } = docket;
  if (kind === 'sheets') return sheetsOf(list, docket, surveys);
  if (kind === 'spreads') return planSpreads(list, { kind, marks: { trim: false, fold: false } });
  const sides = scheme.kind === 'leaflet' ? templateOf(list, scheme, safe) : undefined;
  return sides && templatePlan(sides, unit);
}
