import { canonicalJson } from '../../core/docket/json';
import { createHash } from 'node:crypto';
import type { JobState } from '../../core/checks/finding';
import type { Output, OutputOf } from '../../core/handover/outputs';
import type { SheetPlan } from '../../core/sheets/plan';
import { planProof } from '../../core/sheets/spreads';
import { templateOf, templatePlan } from '../../core/sheets/template';
import { PdfError } from '../objects/pdfError';
import { writeSheetsPdf, type WriteContext } from './sheetsPdf';

/** Outputs that are PDFs of a docket's pages or sheets. */
export type PdfOutput = OutputOf<'pages' | 'sheets' | 'spreads' | 'template'>;
type Job = Omit<WriteContext, 'id' | 'title' | 'inks'>;
type Worked = Pick<JobState, 'docket' | 'list' | 'plan'>;

/** Writes one output of a docket that is worked out, or the pages of it that `job.only` names, as one file. Throws PdfError. */
export async function writeWork(work: Worked, output: PdfOutput, job: Job): Promise<void> {
  if (!work.list.pages.length) throw new PdfError('no-pages-in-job');
  // The sheet writer does without the PDF library, so that is only loaded where it is needed.
  if (output.kind === 'pages')
    return (await import('./pagesPdf')).writePagesPdf(work.list, output.crop, contextOf(work, output, job));
  const plan = planOf(output.kind, work);
  if (!plan) throw new PdfError('no-sheets');
  await writePlan(work, output, plan, job);
}

/** Writes sheets that were planned of what was worked out. Throws PdfError. */
export const writePlan = (work: Worked, output: Output, plan: SheetPlan, job: Job): Promise<void> =>
  writeSheetsPdf(plan, contextOf(work, output, job));

function contextOf({ docket, list }: Worked, output: Output, job: Job): WriteContext {
  const said = canonicalJson([docket, output, job.only]);
  return { ...job, id: createHash('md5').update(said).digest('hex'), title: docket.title, inks: list.inks };
}

function planOf(kind: Exclude<PdfOutput['kind'], 'pages'>, work: Worked): SheetPlan | undefined {
  if (kind === 'sheets') return work.plan;
  const { list } = work;
  const { scheme, unit, safe } = work.docket;
  if (kind === 'spreads') return planProof(list);
  const sides = scheme.kind === 'leaflet' ? templateOf(list, scheme, safe) : undefined;
  return sides && templatePlan(sides, unit);
}
