import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { surveySchema } from '../../core/model/survey';
import { blobToFile, fileBytes } from '../blobs';
import { runInFence } from '../fence';
import type { SurveyTask } from '../fenced/surveyFile';
import { failIntake, fileOfIntake, settleIntake } from '../intakes';
import { enqueue } from '../queue';
import { inWorkFolder } from '../workFolder';
import { Lost, type Worked } from './workAt';

const LIMITS = { seconds: 60, mb: 2048 };
/** The time limit grows by one second for each of these megabytes. */
const MB_PER_SECOND = 4;

/** Surveys the file of an intake, in a fence, and settles the intake. */
export const surveyWork: Worked = {
  kind: 'survey',
  async carryOut(claim, now, signal) {
    const file = await fileOfIntake(claim);
    if (!file) throw new Lost();
    await inWorkFolder(async (folder) => {
      const task: SurveyTask = {
        file: join(folder, 'in.pdf'),
        out: join(folder, 'survey.json'),
        pdf: join(folder, 'made.pdf'),
      };
      await blobToFile(file.blobId, task.file);
      const seconds = LIMITS.seconds + Math.ceil(file.size / 1024 / 1024 / MB_PER_SECOND);
      await runInFence('surveyFile', task, { ...LIMITS, seconds }, signal, (done, total) =>
        Object.assign(now, { done, total }),
      );
      const survey = surveySchema.parse(JSON.parse(await readFile(task.out, 'utf8')));
      const pdf = existsSync(task.pdf) ? fileBytes(task.pdf) : undefined;
      if (!(await settleIntake(claim, survey, pdf))) throw new Lost();
      enqueue('measure', file.sha256);
    });
  },
  fail: failIntake,
};
