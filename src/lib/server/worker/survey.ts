import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { surveySchema } from '../../core/pages/survey';
import { blobToFile, fileBytes } from '../blobs';
import { runInFence } from '../fence';
import type { SurveyTask } from '../fenced/surveyFile';
import { enqueue } from '../queue';
import { intakeToSurvey, settleIntake, tendIntake } from '../intakes';
import { troubleOf } from '../trouble';
import { inWorkFolder } from '../workFolder';

const LIMITS = { seconds: 60, mb: 2048 };
/** A large file gets a second more for each of these megabytes. */
const MB_PER_SECOND = 4;
const TEND_EVERY_MS = 500;

/** Surveys the file of an intake, in a fence, and settles the intake. */
export async function surveyIntake(id: string): Promise<void> {
  const intake = await intakeToSurvey(id);
  if (!intake) return;
  let progress: [number, number] = [0, 0];
  const tend = setInterval(() => void tendIntake(id, ...progress), TEND_EVERY_MS);
  try {
    await inWorkFolder(async (folder) => {
      const task: SurveyTask = {
        file: join(folder, 'in.pdf'),
        out: join(folder, 'survey.json'),
        pdf: join(folder, 'made.pdf'),
      };
      await blobToFile(intake.blobId, task.file);
      const seconds = LIMITS.seconds + Math.ceil(intake.size / 1024 / 1024 / MB_PER_SECOND);
      await runInFence(
        'surveyFile',
        task,
        { ...LIMITS, seconds },
        undefined,
        (done, total) => (progress = [done, total]),
      );
      const survey = surveySchema.parse(JSON.parse(await readFile(task.out, 'utf8')));
      const pdf = survey.picture && fileBytes(task.pdf);
      await settleIntake(id, intake.jobId, { survey, sha256: intake.sha256, blobId: intake.blobId, pdf });
      await enqueue('measure', intake.sha256);
    });
  } catch (error) {
    const trouble = troubleOf(error);
    if (!trouble) throw error;
    await settleIntake(id, intake.jobId, { trouble });
  } finally {
    clearInterval(tend);
  }
}
