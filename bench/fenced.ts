import type { Surveys } from '../src/lib/core/model/survey';
import { dismissStandby, keepReady, runInFence } from '../src/lib/server/fence';
import { sendSurveys } from '../src/lib/server/fenced/sentSurveys';
import type { OutputTask } from '../src/lib/server/fenced/writeOutputFile';

/** Time for a process to start and to warm up, as there is between two clicks of a person. */
const READY_MS = 4000;

/** Seconds and memory that an output takes as the worker makes it, in a fenced process: one that stands by where `ready`, else with its start. */
export async function makeOutput(
  { surveys, ...task }: Omit<OutputTask, 'surveys'> & { surveys: Surveys },
  ready: boolean,
): Promise<{ seconds: number; mb: number }> {
  if (ready) {
    keepReady('writeOutputFile');
    await new Promise((done) => setTimeout(done, READY_MS));
  } else dismissStandby();
  const start = performance.now();
  const whole: OutputTask = { ...task, surveys: sendSurveys(surveys, task.output) };
  const { peakMb } = await runInFence('writeOutputFile', whole, { seconds: 600, mb: 8192 });
  return { seconds: (performance.now() - start) / 1000, mb: peakMb };
}
