import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { PSM, Worker } from 'tesseract.js';
import type { Gray } from '../gray';

/** What was read in a picture of one line: its words, and how sure each is, 0 to 100. */
export interface Line {
  text: string;
  words: { text: string; sure: number }[];
}

/** Tesseract's mode for pictures of single lines. */
const ONE_LINE = '7' as PSM;
const DIGITS = '0123456789';

/** What Tesseract.js does not declare of its worker: the thread that it runs in. */
interface Threaded {
  worker: { ref(): void; unref(): void };
}

/** A reader and how many wait for it. */
interface Reader {
  worker: Promise<Worker>;
  waiting: number;
}
/** One for numbers and one for words: settings of one must not meet what is given to the other. */
const readers = new Map<What, Reader>();
type What = 'numbers' | 'words';

/** A reader of pictures, once a process: the data that it reads by is shipped, and nothing is fetched or kept. */
async function start(what: What): Promise<Worker> {
  const { createWorker } = await import('tesseract.js');
  const shipped = dirname(createRequire(import.meta.url).resolve('@tesseract.js-data/eng/package.json'));
  const worker = await createWorker('eng', 1, {
    langPath: join(shipped, '4.0.0_best_int'),
    gzip: true,
    cacheMethod: 'none',
  });
  await worker.setParameters({
    user_defined_dpi: '300',
    tessedit_pageseg_mode: ONE_LINE,
    tessedit_char_whitelist: what === 'numbers' ? DIGITS : '',
  });
  return worker;
}

function readerOf(what: What): Reader {
  const known = readers.get(what) ?? { worker: start(what), waiting: 0 };
  readers.set(what, known);
  return known;
}

/**
 * Reads pictures of single lines; where they are numbers, only digits are looked for. All are handed over at once: the reader
 * takes what it is given in order, and whoever gave it may go on with something else.
 */
export async function readLines(pictures: readonly Gray[], what: What): Promise<Line[]> {
  if (!pictures.length) return [];
  const reader = readerOf(what);
  const worker = await reader.worker;
  const { worker: thread } = worker as unknown as Threaded;
  // A process ends by itself once nothing is read any more.
  if (!reader.waiting++) thread.ref();
  try {
    const read = await Promise.all(
      pictures.map((picture) => worker.recognize(asGraymap(picture), {}, { text: true, blocks: true })),
    );
    return read.map(({ data }) => ({
      text: data.text.trim(),
      words: (data.blocks ?? []).flatMap(({ paragraphs }) =>
        paragraphs.flatMap(({ lines }) =>
          lines.flatMap(({ words }) => words.map(({ text, confidence }) => ({ text, sure: confidence }))),
        ),
      ),
    }));
  } finally {
    if (!--reader.waiting) thread.unref();
  }
}

/** A picture in the plainest of formats: Netpbm's portable graymap. */
const asGraymap = ({ width, height, light }: Gray): Buffer =>
  Buffer.concat([Buffer.from(`P5\n${width} ${height}\n255\n`), light]);
