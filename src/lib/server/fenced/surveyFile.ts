import { readFile, writeFile } from 'node:fs/promises';
import { surveyPdf } from '../../pdf/survey';
import { writePicturePdf } from '../../pdf/picturePdf';
import { pictureKind, unpackPicture } from '../../raster/picture';
import { runFenced } from './protocol';

/** Surveys the PDF or picture at `file` and writes its facts as JSON to `out`; the PDF made of a picture goes to `pdf`. */
export interface SurveyTask {
  file: string;
  out: string;
  pdf: string;
}

await runFenced<SurveyTask>(async ({ file, out, pdf }, onProgress) => {
  const bytes = await readFile(file);
  const made = pictureKind(bytes) ? await unpackPicture(bytes) : undefined;
  const readable = made ? await writePicturePdf(made.images) : bytes;
  if (made) await writeFile(pdf, readable);
  const survey = await surveyPdf(readable, onProgress);
  await writeFile(
    out,
    JSON.stringify(made ? { ...survey, picture: made.picture, byteCount: bytes.length } : survey),
  );
});
