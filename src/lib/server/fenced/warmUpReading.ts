import { entryAt } from '../../core/entries';
import { sampleFiles } from '../../pdf/read/sampleFiles';
import { surveyPdf } from '../../pdf/read/survey';
import { ROW } from './samples';

/** Surveys made-up files again and again: a process that stands by to read files has then compiled what a real one runs through. */
export async function* warmUpReading(): AsyncGenerator<void, void> {
  const files = await sampleFiles(ROW.pages);
  for (let round = 0; round < files.length * ROW.rounds; round++) {
    await surveyPdf(entryAt(files, round % files.length));
    yield;
  }
}
