import { createHash } from 'node:crypto';
import { workOut } from '../src/lib/core/checks';
import type { Docket } from '../src/lib/core/docket/docket';
import type { Step } from '../src/lib/core/docket/steps';
import { entryAt } from '../src/lib/core/entries';
import { applyToPoint, invert, turnIn, type Turn } from '../src/lib/core/measure/matrix';
import type { Page } from '../src/lib/core/model/page';
import type { Survey } from '../src/lib/core/model/survey';
import { SCAN_ORDERS, scanOf as placeOfSide, type ScanOrder } from '../src/lib/core/pages/rescue';
import { surveyPdf } from '../src/lib/pdf/read/survey';
import { writePicturePdf } from '../src/lib/pdf/write/picturePdf';
import { mediaBoxOf } from '../src/lib/raster/mediaBox';
import { measureSource } from '../src/lib/raster/measureSource';
import { startRenderer } from '../src/lib/raster/nodeRenderer';
import { unpackPicture } from '../src/lib/raster/picture';
import { scanned, type OnGlass } from '../src/lib/standins/glass';
import { INK, Paper } from '../src/lib/standins/paper';
import { docketOf } from './makers';

/** Chances that come again with the same seed (mulberry32, by Tommy Ettinger, public domain). */
export function chances(seed: number): () => number {
  let state = seed | 0;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

const WORDS =
  'The driver shall sound the whistle before every crossing and stop where a flag is shown Lamps are lit from sunset to sunrise Points are held not trusted Coal water and sand are seen to before the first passenger'.split(
    ' ',
  );
const SMALL = { width: 105, height: 148 };

/** How a booklet is drawn: where its numbers stand, and which pages carry hardly a word. */
export interface Booklet {
  pages: number;
  numbers: 'middle' | 'outer' | 'head';
  /** Covers carry no number. */
  bare: boolean;
  /** Millimetres of its pages. */
  size?: { width: number; height: number };
}

/** A stapled booklet, page by page. */
export async function drawBooklet(
  { pages, numbers, bare, size: { width, height } = SMALL }: Booklet,
  chance: () => number,
): Promise<Uint8Array> {
  const paper = await Paper.create('Booklet');
  for (let n = 1; n <= pages; n++) {
    const page = paper.page(width, height);
    page.text(n === 1 ? 'Larkmoor Light Railway' : `Section ${Math.ceil(n / 3)}`, 12, 24, 13, 'strong');
    const lines = n === 1 || n === pages ? 2 : chance() < 0.1 ? 3 : 8 + Math.floor(chance() * 8);
    for (let line = 0; line < lines; line++) {
      const from = Math.floor(chance() * (WORDS.length - 8));
      page.text(WORDS.slice(from, from + 7).join(' '), 12, 36 + line * 6, 8.5);
    }
    if (bare && (n === 1 || n === pages)) continue;
    const y = numbers === 'head' ? 10 : height - 8;
    if (numbers === 'middle') page.text(String(n), width / 2, y, 9, 'strong', INK.black, 'centre');
    else if (n % 2) page.text(String(n), width - 11, y, 9, 'plain', INK.black, 'right');
    else page.text(String(n), 11, y, 9);
  }
  return paper.save();
}

/** Scans of both sides of a booklet's sheets, in the order in which they were scanned. */
export interface ScanSet {
  pictures: Buffer[];
  /** The pages on each scan from the left as it is read, and how it was turned on the glass. */
  truth: { pages: [left: number, right: number]; turn: Turn; skew: number }[];
  order: ScanOrder;
}

/** Scans a booklet; `lies` says how each scan does. */
export async function scanBooklet(
  booklet: Booklet,
  order: ScanOrder,
  ppi: number,
  lies: (scan: number) => Omit<OnGlass, 'ppi'>,
  chance: () => number,
): Promise<ScanSet> {
  const bytes = await drawBooklet(booklet, chance);
  const survey = await surveyPdf(bytes);
  const pdf = (await startRenderer()).open(bytes);
  const size = booklet.size ?? SMALL;
  const [width, height] = [Math.round((size.width / 25.4) * ppi), Math.round((size.height / 25.4) * ppi)];
  const drawn = (n: number) =>
    pdf.gray(
      n - 1,
      mediaBoxOf(entryAt(survey.pages, n - 1)),
      [ppi / 72, 0, 0, -ppi / 72, 0, height],
      width,
      height,
    );
  const sheets = booklet.pages / 4;
  const sides: { at: number; pages: [number, number] }[] = [];
  for (let sheet = 0; sheet < sheets; sheet++) {
    const [last, first] = [booklet.pages - 2 * sheet, 2 * sheet + 1];
    sides.push({ at: placeOfSide(sheet, 'front', sheets, order), pages: [last, first] });
    sides.push({ at: placeOfSide(sheet, 'back', sheets, order), pages: [first + 1, last - 1] });
  }
  sides.sort((a, b) => a.at - b.at);
  const set: ScanSet = { pictures: [], truth: [], order };
  for (const [n, { pages }] of sides.entries()) {
    const how = lies(n);
    set.pictures.push(await scanned({ pages: pages.map(drawn) }, { ...how, ppi, chance }));
    set.truth.push({ pages, turn: how.turn ?? 0, skew: how.skew ?? 0 });
  }
  pdf.close();
  return set;
}

/** A random set: any order, every turn, askew by up to 3°, 150 to 400 dots an inch, noise, dirt, JPEG of quality 50 to 90. */
export async function randomSet(seed: number, most = 64): Promise<ScanSet & { ppi: number }> {
  const chance = chances(seed);
  const among = <T>(of: readonly T[]): T => entryAt(of, Math.floor(chance() * of.length));
  const ppi = among([150, 200, 300, 400]);
  const quality = 50 + Math.floor(chance() * 41);
  const [noise, beyond, lid, shadow] = [
    chance() * 10,
    chance() < 0.5 ? 0 : chance() * 8,
    among([30, 250]),
    chance() * 0.3,
  ];
  const booklet: Booklet = {
    pages: 4 * (1 + Math.floor((chance() * most) / 4)),
    numbers: among(['middle', 'outer', 'head']),
    bare: chance() < 0.5,
  };
  const set = await scanBooklet(
    booklet,
    among(SCAN_ORDERS),
    ppi,
    () => ({
      turn: among([0, 90, 180, 270] as const),
      skew: chance() * 6 - 3,
      noise,
      beyond,
      lid,
      shadow,
      specks: Math.floor(chance() * 20),
      quality,
    }),
    chance,
  );
  return { ...set, ppi };
}

/** Pictures in one PDF, measured. */
export async function measuredSet(pictures: readonly Buffer[]): Promise<{ pdf: Uint8Array; survey: Survey }> {
  const images = [];
  for (const picture of pictures) images.push(...(await unpackPicture(picture)).images);
  const pdf = await writePicturePdf(images);
  return { pdf, survey: await measureSource(pdf, await surveyPdf(pdf)) };
}

/** Scans set straight and put back in order by the numbers on them. */
export const SCAN_STEPS: Step[] = [
  { id: 's', kind: 'straighten', pages: 'all', toPaper: true, alike: true },
  {
    id: 'o',
    kind: 'reading-order',
    pages: 'all',
    arrangement: { by: 'stitched', scans: 'sheets' },
    gutter: 0,
    byNumbers: true,
  },
];

/** The job that sets scans straight and puts them back in order by the numbers on them. */
export function scanJob({ pdf, survey }: { pdf: Uint8Array; survey: Survey }) {
  const source = createHash('sha256').update(pdf).digest('hex');
  const docket: Docket = docketOf([
    { id: 't', kind: 'take-in', source, name: 'scans.pdf', where: { at: 'end' } },
    ...SCAN_STEPS,
  ]);
  const surveys = { [source]: survey };
  return { docket, surveys, work: workOut(docket, surveys) };
}

/** The page of the booklet that a page of the job shows, and whether it stands upright. */
export function shownOn(page: Page, { truth }: ScanSet, survey: Survey): { n: number; upright: boolean } {
  const { art } = page;
  if (!art) return { n: 0, upright: false };
  const { pages, turn } = entryAt(truth, art.index);
  const { media } = entryAt(survey.pages, art.index).boxes;
  const at = applyToPoint(invert(art.place), page.trim.width / 2, page.trim.height / 2);
  const [x, y] = [at.x / media.x1, at.y / media.y1];
  const across = { 0: x, 90: 1 - y, 180: 1 - x, 270: y }[turn];
  return { n: pages[across < 0.5 ? 0 : 1], upright: (turnIn(art.place) + turn) % 360 === 0 };
}
