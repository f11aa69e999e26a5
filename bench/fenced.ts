import { dismissStandby, keepReady, runInFence } from '../src/lib/server/fence';

/** Seconds and memory that an output takes as the worker makes it, in a fenced process: one that stands by where `ready`, else with its start. */
export async function makeOutput(task: unknown, ready: boolean): Promise<{ seconds: number; mb: number }> {
  if (ready) {
    keepReady('writeOutputFile');
    await new Promise((done) => setTimeout(done, 6000));
  } else dismissStandby();
  const start = performance.now();
  const { peakMb } = await runInFence('writeOutputFile', task, { seconds: 600, mb: 8192 });
  return { seconds: (performance.now() - start) / 1000, mb: peakMb };
}
