import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { surveySchema } from '../../core/pages/survey';
import { blobToFile } from '../blobs';
import { runInFence } from '../fence';
import type { MeasureTask } from '../fenced/measureFile';
import { canWait } from '../runs';
import { beginMeasure, failMeasure, finishMeasure, tendMeasure } from '../measures';
import { troubleOf } from '../trouble';
import { inWorkFolder } from '../workFolder';

/** A page takes a hundredth of a second as a rule; a crowded one may take a hundred times as long. */
const LIMITS = { seconds: 60, secondsAPage: 1, mb: 3072 };
const TEND_EVERY_MS = 500;

/** Sources that this process is measuring. */
export const measuring = new Map<string, AbortController>();

/** Measures a source in a fence and puts what was found in its survey. */
export async function measure(sha256: string): Promise<void> {
  if (await canWait(sha256)) return;
  const begun = await beginMeasure(sha256);
  if (!begun) return;
  const controller = new AbortController();
  measuring.set(sha256, controller);
  const tend = setInterval(() => void tendMeasure(sha256), TEND_EVERY_MS);
  try {
    await inWorkFolder(async (folder) => {
      const task: MeasureTask = {
        file: join(folder, 'in.pdf'),
        survey: begun.survey,
        out: join(folder, 'survey.json'),
      };
      await blobToFile(begun.blobId, task.file);
      const seconds = LIMITS.seconds + LIMITS.secondsAPage * begun.survey.pages.length;
      await runInFence('measureFile', task, { seconds, mb: LIMITS.mb }, controller.signal);
      await finishMeasure(sha256, surveySchema.parse(JSON.parse(await readFile(task.out, 'utf8'))));
    });
  } catch (error) {
    const trouble = troubleOf(error);
    if (!trouble) throw error;
    // Stopped with the worker, or without room: it is taken on later.
    if (trouble.code !== 'cancelled' && trouble.code !== 'disk-full') await failMeasure(sha256);
  } finally {
    clearInterval(tend);
    measuring.delete(sha256);
  }
}
