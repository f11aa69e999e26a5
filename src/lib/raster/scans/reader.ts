import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { PSM, Worker } from 'tesseract.js';
import type { Gray } from '../pdfium';

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

let started: Promise<Worker> | undefined;
/** Readings follow one another: settings of one must not meet another. */
let last: Promise<unknown> = Promise.resolve();
let reads: 'numbers' | 'words' | undefined;

/** The reader of pictures, once a process: the data that it reads by is shipped, and nothing is fetched or kept. */
async function start(): Promise<Worker> {
  const { createWorker } = await import('tesseract.js');
  const shipped = dirname(createRequire(import.meta.url).resolve('@tesseract.js-data/eng/package.json'));
  const worker = await createWorker('eng', 1, {
    langPath: join(shipped, '4.0.0_best_int'),
    gzip: true,
    cacheMethod: 'none',
  });
  await worker.setParameters({ user_defined_dpi: '300', tessedit_pageseg_mode: ONE_LINE });
  return worker;
}

/** Reads pictures of single lines, in order; where they are numbers, only digits are looked for. */
export function readLines(pictures: readonly Gray[], what: 'numbers' | 'words'): Promise<Line[]> {
  if (!pictures.length) return Promise.resolve([]);
  const reading = last.then(() => readNow(pictures, what));
  last = reading.catch(() => undefined);
  return reading;
}

async function readNow(pictures: readonly Gray[], what: 'numbers' | 'words'): Promise<Line[]> {
  const worker = await (started ??= start());
  const { worker: thread } = worker as unknown as Threaded;
  // A process ends by itself once nothing is read any more.
  thread.ref();
  try {
    if (reads !== what)
      await worker.setParameters({ tessedit_char_whitelist: what === 'numbers' ? DIGITS : '' });
    reads = what;
    const lines: Line[] = [];
    for (const picture of pictures) {
      const { data } = await worker.recognize(asGraymap(picture), {}, { text: true, blocks: true });
      const words = (data.blocks ?? []).flatMap(({ paragraphs }) =>
        paragraphs.flatMap(({ lines: all }) => all.flatMap((line) => line.words)),
      );
      lines.push({
        text: data.text.trim(),
        words: words.map(({ text, confidence }) => ({ text, sure: confidence })),
      });
    }
    return lines;
  } finally {
    thread.unref();
  }
}

/** A picture in the plainest of formats: Netpbm's portable graymap. */
const asGraymap = ({ width, height, light }: Gray): Buffer =>
  Buffer.concat([Buffer.from(`P5\n${width} ${height}\n255\n`), light]);
