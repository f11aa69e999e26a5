import { statSync } from 'node:fs';
import { join } from 'node:path';
import { workOut, type WorkedOut } from '../core/checks';
import type { Docket } from '../core/docket/docket';
import { outputKind, partsOf, type Output } from '../core/handover/outputs';
import { SplitProblem, type Part } from '../core/handover/parts';
import { dayOf } from '../core/numbers/day';
import { PatternError } from '../core/numbers/pattern';
import { SelectionError } from '../core/select/selection';
import { partNames } from '../words/fileName';
import { sayNameError } from '../words/patterns';
import { saySelectionError } from '../words/selections';
import { HandOverError } from './handOverError';
import type { MadeFile } from './made';
import { writeOutput } from './outputs';
import type { HandOverJob } from './outputs/outputMaker';
import { entryAt } from '../core/entries';

/**
 * Makes the files of an output in a folder, under plain names there, with the names they go out under. What was begun and
 * failed is left for the caller to throw away with the folder. Throws HandOverError, PdfError.
 */
export async function handOver(docket: Docket, output: Output, job: HandOverJob): Promise<MadeFile[]> {
  const work = workOut(docket, job.surveys);
  const parts = partsAsked(work, output);
  const files = await writeOutput(work, output, parts, job);
  const names = namesOf(
    work,
    output,
    files.map(({ part }) => part),
    job.at,
  );
  const { counts } = outputKind(output.kind);
  return files.map(({ file, part, facts }, n) => ({
    file,
    name: entryAt(names, n),
    bytes: statSync(join(job.folder, file)).size,
    ...(counts ? { pages: part.pages.length, from: part.from, to: part.to } : {}),
    ...facts,
    ...(part.over ? { over: true as const } : {}),
    ...(part.alone ? { alone: true as const } : {}),
  }));
}

/** The parts of an output. Throws HandOverError if it cannot be made or split so. */
export function partsAsked(work: WorkedOut, output: Output): Part[] {
  try {
    return partsOf(work, output);
  } catch (error) {
    if (error instanceof SplitProblem) throw new HandOverError({ code: error.code });
    if (error instanceof SelectionError)
      throw new HandOverError({ code: 'pages-unread', data: { reason: saySelectionError(error) } });
    throw error;
  }
}

/** The names of the files of parts. Throws HandOverError if the pattern cannot be read. */
export function namesOf(work: WorkedOut, output: Output, parts: readonly Part[], at: Date): string[] {
  try {
    return partNames(work, output, parts, dayOf(at));
  } catch (error) {
    if (!(error instanceof PatternError)) throw error;
    throw new HandOverError({ code: 'name-unread', data: { reason: sayNameError(error) } });
  }
}
