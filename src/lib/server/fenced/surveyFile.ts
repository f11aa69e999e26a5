import { readFile, writeFile } from 'node:fs/promises';
import { readablePdf } from '../../pdf/read/load';
import { tidyPdf } from '../../pdf/read/tidy';
import { surveyPdf } from '../../pdf/read/survey';
import { asPdf } from '../../make/asPdf';
import { runFenced } from './protocol';
import { warmUpReading } from './warmUpReading';

/** Surveys the PDF, picture or drawing at `file` and writes its facts as JSON to `out`; a PDF that is made of it goes to `pdf`, where one is. */
export interface SurveyTask {
  file: string;
  out: string;
  pdf: string;
  /** With which the file is opened, where it needs one. */
  password?: string;
}

await runFenced<SurveyTask>(
  async ({ file, out, pdf, password }, onProgress) => {
    const bytes = await readFile(file);
    const { pdf: readable, picture } = await asPdf(
      password === undefined ? bytes : await tidyPdf(bytes, false, password),
    );
    const survey = await surveyPdf(readable, onProgress);
    // What cannot be read as it lies has a plain copy beside it, as a picture has a PDF made of it.
    const { bytes: plain } = await readablePdf(readable);
    if (plain !== bytes) await writeFile(pdf, plain);
    await writeFile(out, JSON.stringify(picture ? { ...survey, picture, byteCount: bytes.length } : survey));
  },
  { meanwhile: process.env.FOLDER_STANDBY ? warmUpReading() : undefined },
);
