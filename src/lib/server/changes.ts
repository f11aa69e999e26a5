import { listen } from './db';

/** On this channel the database tells which job has changed, or got further. */
const CHANNEL = 'folder_job';

/** Those who wait for the next change, by the job that they look at. */
const waiting = new Map<string, Set<() => void>>();
let deafen: (() => Promise<void>) | undefined;

function heard(job?: string): void {
  // Told without words: something may have been missed.
  for (const [id, those] of waiting) if (job === undefined || job === id) for (const tell of those) tell();
}

/**
 * The next change of a job from now on, or the end of so many milliseconds, whichever comes first. Whoever looks at the job
 * after this was called misses nothing. `drop` ends the wait.
 */
export function nextChange(job: string, ms: number): { change: Promise<void>; drop: () => void } {
  deafen ??= listen(CHANNEL, heard);
  let drop = (): void => undefined;
  const change = new Promise<void>((done) => {
    const those = waiting.get(job) ?? new Set();
    waiting.set(job, those);
    const timer = setTimeout(() => drop(), ms);
    drop = () => {
      clearTimeout(timer);
      those.delete(drop);
      if (!those.size && waiting.get(job) === those) waiting.delete(job);
      done();
    };
    those.add(drop);
  });
  return { change, drop };
}

/** Hears nothing any more; who waits goes on. */
export async function stopHearing(): Promise<void> {
  heard();
  await deafen?.();
  deafen = undefined;
}
