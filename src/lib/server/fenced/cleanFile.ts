import { readFile, writeFile } from 'node:fs/promises';
import type { Cleaning } from '../../core/pages/cleaning';
import type { Survey } from '../../core/model/survey';
import { cleanScans } from '../../make/cleanScans';
import { PdfError } from '../../pdf/objects/pdfError';
import { runFenced } from './protocol';

/** Writes a copy of the PDF at `file` with clean scans to `out`; `survey` is that of the file, measured. */
export interface CleanTask {
  file: string;
  survey: Survey;
  how: Cleaning;
  out: string;
}

await runFenced<CleanTask>(async ({ file, survey, how, out }, onProgress) => {
  const { bytes, changed } = await cleanScans(await readFile(file), survey, how, onProgress);
  if (!changed.length) throw new PdfError('nothing-to-clean');
  await writeFile(out, bytes);
});
