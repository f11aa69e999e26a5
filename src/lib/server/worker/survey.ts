import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { surveySchema, type Survey } from '../../core/model/survey';
import { fileBytes } from '../blobs';
import { nearToFile } from '../nearFiles';
import { runInFence } from '../fence';
import type { CleanTask } from '../fenced/cleanFile';
import type { SurveyTask } from '../fenced/surveyFile';
import { failIntake, fileOfIntake, settleIntake } from '../intakes';
import { enqueue } from '../queue';
import { surveysOf } from '../sources';
import { inWorkFolder } from '../workFolder';
import { Lost, type Worked } from './workAt';

/** Unpacking, cleaning and packing a large scan takes about half of this. */
const CLEAN_SECONDS_A_PAGE = 4;
const LIMITS = { seconds: 60, mb: 2048, once: true } as const;
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
        ...(file.password === undefined ? {} : { password: file.password }),
      };
      await nearToFile(file.blobId, file.clean ? join(folder, 'scans.pdf') : task.file);
      const seconds = LIMITS.seconds + Math.ceil(file.size / 1024 / 1024 / MB_PER_SECOND);
      const asScanned = file.clean && (await surveysOf([file.clean.from]))[file.clean.from];
      // The file that was to be cleaned is gone, and its job with it.
      if (file.clean && !asScanned) throw new Lost();
      if (file.clean && asScanned) {
        const cleaning: CleanTask = {
          file: join(folder, 'scans.pdf'),
          survey: asScanned,
          how: file.clean.cleaning,
          out: task.file,
        };
        const limits = { ...LIMITS, seconds: seconds + CLEAN_SECONDS_A_PAGE * asScanned.pages.length };
        await runInFence('cleanFile', cleaning, limits, signal, (done, total) =>
          Object.assign(now, { done, total }),
        );
      }
      await runInFence('surveyFile', task, { ...LIMITS, seconds }, signal, (done, total) =>
        Object.assign(now, { done, total }),
      );
      const survey = surveySchema.parse(JSON.parse(await readFile(task.out, 'utf8')));
      const made = existsSync(task.pdf) ? { pdf: fileBytes(task.pdf) } : {};
      const settled = await (asScanned
        ? settleIntake(claim, measuredAs(asScanned, survey), { copy: fileBytes(task.file) })
        : settleIntake(claim, survey, made));
      if (!settled) throw new Lost();
      enqueue('measure', settled);
    });
  },
  fail: failIntake,
};

/** Clean scans show what the scans showed: they lie, and read, as those do. */
const measuredAs = (scans: Survey, copy: Survey): Survey => ({
  ...copy,
  ...(scans.picture ? { picture: scans.picture } : {}),
  pages: copy.pages.map((page, index) => {
    const drawn = scans.pages[index]?.drawn;
    return drawn ? { ...page, drawn } : page;
  }),
});
