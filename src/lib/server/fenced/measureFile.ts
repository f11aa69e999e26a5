import { readFile, writeFile } from 'node:fs/promises';
import type { Survey } from '../../core/model/survey';
import { measureSource } from '../../raster/measureSource';
import { runFenced } from './protocol';

/** Measures what is drawn on the pages of the PDF at `file` and writes its survey, with that, as JSON to `out`. */
export interface MeasureTask {
  file: string;
  survey: Survey;
  out: string;
}

await runFenced<MeasureTask>(async ({ file, survey, out }, onProgress) => {
  await writeFile(out, JSON.stringify(await measureSource(await readFile(file), survey, onProgress)));
});
