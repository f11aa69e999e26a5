import type { WorkedOut } from '../../core/checks';
import type { Output } from '../../core/handover/outputs';
import type { Part } from '../../core/handover/parts';
import { MAKERS } from './kinds';
import type { HandOverJob, OutputMaker, Written } from './outputMaker';

/** Writes the files of an output into the folder of its job. Throws HandOverError, PdfError. */
export const writeOutput = (
  work: WorkedOut,
  output: Output,
  parts: readonly Part[],
  job: HandOverJob,
): Promise<Written[]> => (MAKERS[output.kind] as OutputMaker<Output['kind']>).write(work, output, parts, job);
