import { writeSync } from 'node:fs';
import { setImmediate } from 'node:timers/promises';
import type { Trouble } from '../../words/errors';
import { PictureError } from '../../raster/picture';
import { PdfError } from '../../pdf/pdfError';
import { HandOverError } from './handOverError';

/** What a fenced process says on its standard output, one JSON value a line. */
export type Said =
  { progress: [done: number, total: number] } | { trouble: Trouble } | { done: true; peakMb: number };

/** Least milliseconds between two words of progress. */
const PROGRESS_EVERY_MS = 100;

/**
 * Runs the work of a fenced process and says how it ended. The task comes as JSON on standard input; until it does, the
 * rounds of `meanwhile` are gone through, and nothing waits for more than one of them.
 */
export async function runFenced<Task>(
  work: (task: Task, onProgress: (done: number, total: number) => void) => Promise<void>,
  meanwhile?: AsyncIterator<void>,
): Promise<void> {
  const say = (said: Said) => writeSync(1, `${JSON.stringify(said)}\n`);
  let last = 0;
  try {
    const chunks: Buffer[] = [];
    const ended = (async () => {
      for await (const chunk of process.stdin) chunks.push(chunk as Buffer);
    })();
    while (meanwhile && !chunks.length && !(await meanwhile.next()).done) await setImmediate();
    await ended;
    await work(JSON.parse(Buffer.concat(chunks).toString('utf8')) as Task, (done, total) => {
      const now = Date.now();
      if (now - last < PROGRESS_EVERY_MS && done < total) return;
      last = now;
      say({ progress: [done, total] });
    });
    say({ done: true, peakMb: process.resourceUsage().maxRSS / 1024 });
  } catch (error) {
    say({
      trouble:
        error instanceof PdfError || error instanceof PictureError || error instanceof HandOverError
          ? { code: error.code, data: error.data }
          : (error as { code?: unknown }).code === 'ENOSPC'
            ? { code: 'disk-full' }
            : { code: 'unforeseen', data: { reason: String(error).slice(0, 300) } },
    });
  }
}
