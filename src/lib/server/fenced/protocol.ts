import { troubleOf } from '../trouble';
import { readFileSync, writeFileSync, writeSync } from 'node:fs';
import { createInterface } from 'node:readline';
import { getHeapStatistics } from 'node:v8';
import { setImmediate, setTimeout } from 'node:timers/promises';
import type { Doing, OnDoing } from '../../core/handover/doing';
import { troubleFrom, type Trouble } from '../../words/troubles';
import { PictureError } from '../../raster/picture';
import { PdfError } from '../../pdf/objects/pdfError';
import { HandOverError } from '../../make/handOverError';

/** What a fenced process says on its standard output, one JSON value a line. */
export type Said =
  | { progress: [done: number, total: number, doing?: Doing] }
  | { trouble: Trouble }
  | { done: true; peakMb: number };

/** Least milliseconds between two progress messages. */
const PROGRESS_EVERY_MS = 100;

/**
 * Runs the work of a fenced process and says how it ended. Tasks come as JSON on standard input, one a line; until the first
 * does, the rounds of `meanwhile` are gone through, and nothing waits for more than one of them. What a task leaves behind is
 * collected where it is more than `mostLeftMb`.
 */
export async function runFenced<Task>(
  work: (task: Task, onProgress: OnDoing) => Promise<void>,
  {
    meanwhile,
    mostLeftMb = MOST_LEFT_MB,
  }: { meanwhile?: AsyncIterator<void> | undefined; mostLeftMb?: number } = {},
): Promise<void> {
  const tasks = createInterface({ input: process.stdin })[Symbol.asyncIterator]();
  let came = false;
  const first = tasks.next().finally(() => (came = true));
  while (meanwhile && !came && !(await meanwhile.next()).done) await setImmediate();
  // What warming up has left behind goes now, too: nobody waits.
  if (!came && heldMb() > mostLeftMb) await leaveNothing();
  for (let next = await first; !next.done;) {
    forgetPeak();
    least = Math.min(least, bytesMb());
    await carryOut(work, next.value);
    const following = tasks.next();
    if (heldMb() > mostLeftMb) {
      await Promise.race([following, setTimeout(LEAVE_AFTER_MS, undefined, { ref: false })]);
      await leaveNothing();
    }
    next = await following;
  }
}
/**
 * What a task left behind goes so long after it, or before the next: what was written is read again just then by another
 * process, and somebody waits for that.
 */
const LEAVE_AFTER_MS = 2000;

/**
 * What was in use when the engine began to look stays for one more round, and what the calls that ended still hold, as the bytes
 * of a file, until they are gone: how soon that is depends on what else the machine does. So it is looked at again until hardly
 * more bytes are held than before any task, or none go any more.
 */
async function leaveNothing(): Promise<void> {
  // Processes for rows cannot have it collected, and would only wait.
  if (!globalThis.gc) return;
  for (let still = 0, last = Infinity; still < ROUNDS_STILL;) {
    collect();
    const now = bytesMb();
    if (now < least + 1 && last < Infinity) return;
    still = now < last - 1 ? 0 : still + 1;
    last = now;
    await setTimeout(ROUND_MS);
  }
}
/** So many rounds in which nothing goes are the last ones. */
const [ROUNDS_STILL, ROUND_MS] = [5, 10];
function collect(): void {
  globalThis.gc?.();
  globalThis.gc?.();
  globalThis.gc?.({ type: 'minor' });
}

/**
 * What tasks leave behind lies until it is more than this: with it goes much of what the engine has compiled, and the next task
 * takes up to half as long again.
 */
const MOST_LEFT_MB = 40;
/** Bytes of files and the like that the engine holds. */
const bytesMb = (): number => getHeapStatistics().external_memory / 1024 / 1024;
/** What the engine holds, with the bytes of files. */
const heldMb = (): number => getHeapStatistics().used_heap_size / 1024 / 1024 + bytesMb();
/** The least that was held when a task began. */
let least = Infinity;

/** Lets the kernel count the most memory that this process has held anew (proc(5), `clear_refs`). */
function forgetPeak(): void {
  try {
    writeFileSync('/proc/self/clear_refs', '5');
  } catch {
    // Where it may not be told, the most since the process began counts.
  }
}

/**
 * The most memory that this process has held, in MB (proc(5), `VmHWM`). What getrusage tells of a process also holds what its
 * parent had when it began.
 */
const peakMb = (): number =>
  Number(/^VmHWM:\s+(\d+) kB/m.exec(readFileSync('/proc/self/status', 'utf8'))?.[1]) / 1024;

async function carryOut<Task>(
  work: (task: Task, onProgress: OnDoing) => Promise<void>,
  line: string,
): Promise<void> {
  const say = (said: Said) => writeSync(1, `${JSON.stringify(said)}\n`);
  let last = 0;
  let before: Doing | undefined;
  try {
    await work(JSON.parse(line), (done, total, doing) => {
      const now = Date.now();
      if (now - last < PROGRESS_EVERY_MS && done < total && doing === before) return;
      [last, before] = [now, doing];
      say({ progress: doing ? [done, total, doing] : [done, total] });
    });
    say({ done: true, peakMb: peakMb() });
  } catch (error) {
    say({ trouble: toTell(error) });
  }
}

function toTell(error: unknown): Trouble {
  if (error instanceof PdfError || error instanceof PictureError || error instanceof HandOverError)
    return error instanceof HandOverError ? error.trouble : troubleFrom(error);
  return troubleOf(error) ?? { code: 'unforeseen', data: { reason: String(error).slice(0, 300) } };
}
