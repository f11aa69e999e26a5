import { readFile, writeFile } from 'node:fs/promises';
import { surveyPdf } from '../../pdf/survey';
import { runFenced } from './protocol';

/** Surveys the PDF at `file` and writes its facts as JSON to `out`. */
export interface SurveyTask {
  file: string;
  out: string;
}

await runFenced<SurveyTask>(async ({ file, out }, onProgress) => {
  await writeFile(out, JSON.stringify(await surveyPdf(await readFile(file), onProgress)));
});
