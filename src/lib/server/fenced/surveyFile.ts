import { readFile, writeFile } from 'node:fs/promises';
import { surveyPdf } from '../../pdf/survey';
import { asPdf } from './asPdf';
import { runFenced } from './protocol';
import { warmUpReading } from './warmUpReading';

/** Surveys the PDF, picture or drawing at `file` and writes its facts as JSON to `out`; a PDF that is made of it goes to `pdf`. */
export interface SurveyTask {
  file: string;
  out: string;
  pdf: string;
}

await runFenced<SurveyTask>(
  async ({ file, out, pdf }, onProgress) => {
    const bytes = await readFile(file);
    const { pdf: readable, picture } = await asPdf(bytes);
    if (picture) await writeFile(pdf, readable);
    const survey = await surveyPdf(readable, onProgress);
    await writeFile(out, JSON.stringify(picture ? { ...survey, picture, byteCount: bytes.length } : survey));
  },
  process.env.FOLDER_STANDBY ? warmUpReading() : undefined,
);
