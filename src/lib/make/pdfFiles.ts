import { closeSync, openSync, renameSync, rmSync, statSync, writeSync } from 'node:fs';
import { join } from 'node:path';
import type { WorkedOut } from '../core/checks';
import { partsOf, type Output } from '../core/handover/outputs';
import type { Part } from '../core/handover/parts';
import type { WriteContext } from '../pdf/write/sheetsPdf';
import { writeWork, type PdfOutput } from '../pdf/write/writeOutput';
import type { HandOverJob, Written } from './outputs/outputMaker';
import { wordsOfJob } from './readWords';
import { entryOf, firstOf } from '../core/entries';

/** Writes one PDF into a sink. */
export type WritePdf = (context: Omit<WriteContext, 'id' | 'title' | 'inks'>) => Promise<void>;

/** Writes one file, and how many bytes it came to. `only`: the pages that it has, if not all. */
export async function writeFile(
  name: string,
  job: HandOverJob,
  write: WritePdf,
  only?: readonly number[],
  onProgress?: (done: number) => void | Promise<void>,
): Promise<number> {
  const path = join(job.folder, name);
  const file = openSync(path, 'w');
  try {
    await write({
      surveys: job.surveys,
      read: job.read,
      at: job.at,
      only,
      // Nothing else waits for this process: writing at once is quickest.
      sink: (chunk: Uint8Array) => {
        for (let at = 0; at < chunk.length;) at += writeSync(file, chunk, at);
      },
      onProgress,
    });
  } finally {
    closeSync(file);
  }
  return statSync(path).size;
}

/** Writes the files of an output that is a PDF of pages or of sides of sheets. Throws PdfError. */
export const writePdfFiles = async (
  work: WorkedOut,
  output: PdfOutput,
  parts: readonly Part[],
  job: HandOverJob,
): Promise<Written[]> => {
  const words =
    output.kind === 'pages' && output.searchable ? await wordsOfJob(work, job, job.onProgress) : undefined;
  const write: WritePdf = (context) => writeWork(work, output, { ...context, words });
  return 'split' in output && output.split?.by === 'size'
    ? bySize(work, output, firstOf(parts), output.split.mb * 1e6, job, write)
    : writeParts(parts, job, write, isChosen(output));
};

/** Writes a file for each part. `chosen`: their pages may be fewer than the job has, or in another order. */
export async function writeParts(
  parts: readonly Part[],
  job: HandOverJob,
  write: WritePdf,
  chosen = false,
): Promise<Written[]> {
  const whole = parts.reduce((sum, { pages }) => sum + pages.length, 0);
  let before = 0;
  const written: Written[] = [];
  for (const part of parts) {
    const file = String(written.length + 1);
    // A file that has all its pages is written without a list of them, which is quickest.
    const only = parts.length === 1 && !chosen ? undefined : part.pages;
    await writeFile(file, job, write, only, (done) => job.onProgress?.(before + done, Math.max(whole, done)));
    before += part.pages.length;
    written.push({ file, part });
  }
  return written;
}

const isChosen = (output: Output): boolean =>
  output.kind === 'pages' && (output.pages !== undefined || output.split !== undefined);

/** A part takes at least this share of its size before it is closed, or as many pages as fit. */
const FULL = 0.9;

/** Shares out pages to files of at most so many bytes, as full as trying shows; a page that is larger by itself gets its own. */
async function bySize(
  work: WorkedOut,
  output: Output,
  whole: Part,
  most: number,
  job: HandOverJob,
  write: WritePdf,
): Promise<Written[]> {
  const { pages } = whole;
  const numbered = partsNumbered(work, output);
  const written: Written[] = [];
  let guess = pages.length;
  for (let at = 0; at < pages.length;) {
    const file = String(written.length + 1);
    const trial = `${file}.try`;
    let [fits, tooMany] = [0, pages.length - at + 1];
    let count = Math.min(guess, pages.length - at);
    let bytes = 0;
    for (;;) {
      const tried = await writeFile(trial, job, write, pages.slice(at, at + count));
      if (tried <= most) {
        [fits, bytes] = [count, tried];
        renameSync(join(job.folder, trial), join(job.folder, file));
      } else tooMany = count;
      if (count === 1 && !fits) break;
      if (tooMany - fits <= 1 || (fits && bytes >= FULL * most)) break;
      const likely = Math.floor((count * most * 0.97) / tried);
      count = Math.min(tooMany - 1, Math.max(fits + 1, likely));
    }
    if (!fits) renameSync(join(job.folder, trial), join(job.folder, file));
    else rmSync(join(job.folder, trial), { force: true });
    const mine = pages.slice(at, at + Math.max(1, fits));
    const part = {
      ...numbered(mine),
      name: String(written.length + 1),
      ...(fits ? {} : { over: true as const }),
    };
    written.push({ file, part });
    at += mine.length;
    guess = mine.length;
    await job.onProgress?.(at, pages.length);
  }
  return written;
}

/** A part of pages that were selected out of the undivided file, numbered as parts of a fixed length are. */
function partsNumbered(work: WorkedOut, output: Output): (pages: readonly number[]) => Part {
  const singles = new Map(
    partsOf(work, Object.assign({}, output, { split: { by: 'every', count: 1 } })).map((part) => [
      firstOf(part.pages),
      part,
    ]),
  );
  return (pages) => {
    const numbers = pages.map((page) => entryOf(singles, page).from);
    return { name: '', pages, from: Math.min(...numbers), to: Math.max(...numbers) };
  };
}
