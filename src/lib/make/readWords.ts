import type { WorkedOut } from '../core/checks';
import { applyToPoint, compose, translate, type Matrix } from '../core/measure/matrix';
import type { ReadNumber } from '../core/model/survey';
import { wordsKey, type ReadWord } from '../core/model/readWord';
import { artsOf, facesOf } from '../core/pages/page';
import { mediaBoxOf } from '../raster/mediaBox';
import type { OpenPdf } from '../raster/pdfium';
import type { HandOverJob } from './outputs/outputMaker';

/** Reads the words of all scans that a job shows and behind which no text lies. `onProgress` hears how many are read. */
export async function wordsOfJob(
  { list }: WorkedOut,
  job: Pick<HandOverJob, 'surveys' | 'read'>,
  onProgress?: (done: number, total: number) => void | Promise<void>,
): Promise<Map<string, ReadWord[]>> {
  const scans = new Map(
    facesOf(list)
      .flatMap(artsOf)
      .filter(({ source, index }) => job.surveys[source]?.pages[index]?.drawn?.scan)
      .map(({ source, index }) => [wordsKey(source, index), { source, index }]),
  );
  const [{ sharedRenderer }, { readWords }] = await Promise.all([
    import('../raster/nodeRenderer'),
    import('../raster/scans/words'),
  ]);
  const renderer = await sharedRenderer();
  const open = new Map<string, OpenPdf>();
  const words = new Map<string, ReadWord[]>();
  try {
    for (const [key, { source, index }] of scans) {
      const pdf = open.get(source) ?? renderer.open(await job.read(source));
      open.set(source, pdf);
      const page = job.surveys[source]!.pages[index]!;
      const scan = pdf.scan(index, page, mediaBoxOf(page));
      if (scan && !pdf.hasText(index)) {
        const { gray, ppi } = pdf.seen(index, page, mediaBoxOf(page), scan.ppi);
        const { scan: lies, leans = 0, numbers = [] } = page.drawn ?? {};
        const read = await readWords(gray, ppi, lies?.skew ?? 0, leans);
        words.set(key, [
          ...read,
          ...numbers.filter((each) => !isAmong(each, read)).map((each) => asWord(each, lies?.skew ?? 0)),
        ]);
      }
      await onProgress?.(words.size, scans.size);
    }
  } finally {
    for (const pdf of open.values()) pdf.close();
  }
  return words;
}

/** Lone numbers are read by themselves, and may be missed among words: so near to where it stands one was not. */
const NEAR = 12;
const isAmong = ({ value, x, y }: ReadNumber, read: readonly ReadWord[]): boolean =>
  read.some(({ text, width, matrix }) => {
    const middle = applyToPoint(matrix, width / 2, 0);
    return text === String(value) && Math.hypot(middle.x - x, middle.y - y) < NEAR;
  });

/** A number as a word about its middle: how high it is was not kept, and as high as folios are by practice is near enough to find it. */
function asWord({ value, x, y, turn }: ReadNumber, skew: number): ReadWord {
  const text = String(value);
  const [size, width] = [FOLIO_SIZE, 0.5 * FOLIO_SIZE * text.length];
  const [cos, sin] = [Math.cos(((turn - skew) * Math.PI) / 180), Math.sin(((turn - skew) * Math.PI) / 180)];
  const level: Matrix = [cos, sin, -sin, cos, x, y];
  return { text, width, size, matrix: compose(translate(-width / 2, -size / 3), level) };
}
const FOLIO_SIZE = 9;
