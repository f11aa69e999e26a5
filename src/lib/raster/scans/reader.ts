import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { Page as TesseractPage, PSM, Worker } from 'tesseract.js';
import type { Gray } from '../gray';

/** What was read in a picture of one line: its words, and how sure each is, 0 to 100. */
export interface Line {
  text: string;
  words: { text: string; sure: number }[];
}

/** Tesseract's modes for pictures of single lines, and of whole pages. */
const [ONE_LINE, WHOLE_PAGE] = ['7' as PSM, '3' as PSM];
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
/** One for each kind of reading: settings of one must not meet what is given to the other. */
const readers = new Map<What, Reader>();
type What = 'numbers' | 'words' | 'pages';

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
    tessedit_pageseg_mode: what === 'pages' ? WHOLE_PAGE : ONE_LINE,
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
export async function readLines(pictures: readonly Gray[], what: Exclude<What, 'pages'>): Promise<Line[]> {
  if (!pictures.length) return [];
  const read = await recognized(pictures, what);
  return read.map((data) => ({
    text: data.text.trim(),
    words: linesOf(data).flatMap(({ words }) =>
      words.map(({ text, confidence }) => ({ text, sure: confidence })),
    ),
  }));
}

/** A word on a page, in dots: from where to where, its base line, and how high its line is. */
export interface PageWord {
  text: string;
  sure: number;
  x0: number;
  x1: number;
  base: number;
  high: number;
}

/** Reads a page that stands upright, in the order in which its lines are read. */
export async function readPage(picture: Gray): Promise<PageWord[]> {
  const [data] = await recognized([picture], 'pages');
  return linesOf(data!).flatMap(({ words, bbox: line, baseline }) => {
    const rises = (baseline.y1 - baseline.y0) / Math.max(1, baseline.x1 - baseline.x0);
    return words.map(({ text, confidence, bbox }) => ({
      text,
      sure: confidence,
      x0: bbox.x0,
      x1: bbox.x1,
      base: baseline.y0 + rises * (bbox.x0 - baseline.x0),
      high: line.y1 - line.y0,
    }));
  });
}

const linesOf = ({ blocks }: TesseractPage) =>
  (blocks ?? []).flatMap(({ paragraphs }) => paragraphs.flatMap(({ lines }) => lines));

async function recognized(pictures: readonly Gray[], what: What): Promise<TesseractPage[]> {
  const reader = readerOf(what);
  const worker = await reader.worker;
  const { worker: thread } = worker as unknown as Threaded;
  // A process ends by itself once nothing is read any more.
  if (!reader.waiting++) thread.ref();
  try {
    const read = await Promise.all(
      pictures.map((picture) => worker.recognize(asGraymap(picture), {}, { text: true, blocks: true })),
    );
    return read.map(({ data }) => data);
  } finally {
    if (!--reader.waiting) thread.unref();
  }
}

/** A picture in the plainest of formats: Netpbm's portable graymap. */
const asGraymap = ({ width, height, light }: Gray): Buffer =>
  Buffer.concat([Buffer.from(`P5\n${width} ${height}\n255\n`), light]);
