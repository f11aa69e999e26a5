import { workOut } from '../../core/checks';
import { emptyDocket, type Docket } from '../../core/docket/docket';
import type { Survey } from '../../core/pages/survey';
import { writeWork } from '../../pdf/writeOutput';
import { namesOf, partsAsked } from './handOver';
import { asItComesIn, FOLIOS, sampleFile, SAMPLES, SOURCE, TAKE_IN } from './samples';

/**
 * Makes the sheets and the pages of made-up files again and again, with and without lines put on them, and throws them
 * away: a process that stands by has then compiled what a real output runs through, and does not compile it while somebody
 * waits.
 */
export async function* warmUp(): AsyncGenerator<void, void> {
  for (const sample of SAMPLES) {
    const bytes = await sampleFile(sample);
    const survey = surveyOf(sample.pages, bytes.length);
    for (let round = 0; round < sample.rounds; round++)
      for (const steps of [[TAKE_IN], [TAKE_IN, FOLIOS]])
        for (const output of sample.outputs) {
          const docket: Docket = { ...emptyDocket('Warm-up'), steps };
          const task = asItComesIn({ docket, surveys: { [SOURCE]: survey } });
          const work = workOut(task.docket, task.surveys);
          namesOf(work, output, partsAsked(work, output), new Date(0));
          await writeWork(work, output, {
            surveys: task.surveys,
            read: () => Promise.resolve(bytes),
            sink: () => undefined,
            at: new Date(0),
            onProgress: () => undefined,
          });
          yield;
        }
  }
}

/** What is known of a sample, with all that a survey says of any file. */
function surveyOf(pages: number, byteCount: number): Survey {
  const page = { x0: 0, y0: 0, x1: 420, y1: 595 };
  return {
    version: 1,
    pages: Array.from({ length: pages }, () => ({
      boxes: { media: page, crop: page, bleed: page, trim: page, art: page },
      given: ['media' as const],
      rotate: 0 as const,
      userUnit: 1,
      toUpright: [1, 0, 0, 1, 0, 0] as const,
      inks: [0],
    })),
    inks: [{ name: 'Black', kind: 'process' }],
    bookmarks: [],
    producer: 'none',
    pdfVersion: '1.7',
    encryption: 'none',
    byteCount,
  };
}
