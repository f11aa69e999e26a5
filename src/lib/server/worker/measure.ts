import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { surveySchema } from '../../core/model/survey';
import { nearToFile } from '../nearFiles';
import { endClaim } from '../claims';
import { db } from '../db';
import { runInFence } from '../fence';
import type { MeasureTask } from '../fenced/measureFile';
import { finishMeasure, sourceToMeasure } from '../measures';
import { inWorkFolder } from '../workFolder';
import { Lost, type Worked } from './workAt';

/** A page takes a hundredth of a second as a rule; a crowded one may take a hundred times as long. */
const LIMITS = { seconds: 60, secondsAPage: 1, mb: 3072 };

/** Measures a source in a fence and puts what was found in its survey. One that fails works as before, only what needs a measure does not. */
export const measureWork: Worked = {
  kind: 'measure',
  async carryOut(claim, now, signal) {
    const source = await sourceToMeasure(claim);
    if (!source) throw new Lost();
    await inWorkFolder(async (folder) => {
      const task: MeasureTask = {
        file: join(folder, 'in.pdf'),
        survey: source.survey,
        out: join(folder, 'survey.json'),
      };
      await nearToFile(source.blobId, task.file);
      const seconds = LIMITS.seconds + LIMITS.secondsAPage * source.survey.pages.length;
      await runInFence('measureFile', task, { seconds, mb: LIMITS.mb, last: true }, signal, (done, total) =>
        Object.assign(now, { done, total }),
      );
      const measured = surveySchema.parse(JSON.parse(await readFile(task.out, 'utf8')));
      if (!(await finishMeasure(claim, measured))) throw new Lost();
    });
  },
  fail: (claim, trouble) => endClaim(db(), claim, 'failed', trouble),
};
