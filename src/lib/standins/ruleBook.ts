import { PDFDocument, TextRenderingMode, type PDFFont } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { mm } from '../core/measure/unit';
import { surveyPdf } from '../pdf/read/survey';
import { mediaBoxOf } from '../raster/mediaBox';
import type { Matrix } from '../core/measure/matrix';
import type { Gray } from '../raster/gray';
import { startRenderer } from '../raster/nodeRenderer';
import { scanned, type OnGlass } from './glass';
import { INK, Paper, type Drawing } from './paper';
import { entryAt } from '../core/entries';

/** A page of the booklet, and the resolution of its scans. */
const [WIDTH, HEIGHT, PPI] = [105, 148, 150];
const PAGES = 16;
/** A lid about as light as the paper: nothing is seen beyond it. */
const PAPER_LID = 226;
/** How each scan lies: clockwise quarter turns, and its skew in degrees. */
const LIES: readonly { turn: 0 | 90 | 180 | 270; skew: number }[] = [
  { turn: 0, skew: 0.4 },
  { turn: 0, skew: -0.3 },
  { turn: 180, skew: 0.5 },
  { turn: 0, skew: 0.2 },
  { turn: 90, skew: -0.4 },
  { turn: 0, skew: 0.6 },
  { turn: 180, skew: -0.2 },
  { turn: 0, skew: 0.3 },
];

const RULES = [
  'No train shall leave a station until the guard has shown his flag.',
  'The driver shall sound the whistle before every crossing.',
  'Lamps are lit from sunset to sunrise, and in fog at all times.',
  'Points are held, not trusted.',
  'A train that stands on the line is guarded at both ends.',
  'Coal, water and sand are seen to before the first passenger.',
  'Nobody rides on the footplate but those who work there.',
];

/** How a booklet was scanned. */
export interface Scanning {
  /** Sheets, from the outermost 0, that were not scanned. */
  without?: readonly number[];
  /** How each scan lies, where not as usual. */
  lies?: readonly { turn: 0 | 90 | 180 | 270; skew: number; beyond?: number }[];
  /** All fronts first, then all backs. */
  frontsFirst?: boolean;
}

/**
 * The stapled rule book as its scans: both sides of each sheet, two pages to a scan, some turned, a light skew, tinted
 * paper. Behind each picture lies its text, as scanning programs put it.
 */
export async function drawRuleBookScans({
  without = [],
  lies: lying = LIES,
  frontsFirst = false,
}: Scanning = {}): Promise<Uint8Array> {
  const pages = await drawn();
  const document = await PDFDocument.create({ updateMetadata: false });
  document.setTitle('Rule book 1931, scans');
  document.setProducer('Folder demo');
  document.setCreationDate(new Date('2026-01-05T09:00:00Z'));
  const font = await document.embedFont('Helvetica');
  for (const { n, left, right } of scansOf(without, frontsFirst)) {
    const lies = entryAt(lying, n);
    const picture = await scanned(
      { pages: [left, right].map((page) => entryAt(pages, page - 1)) },
      { ppi: PPI, turn: lies.turn, skew: lies.skew, lid: PAPER_LID, quality: 70 },
    );
    const { width, height } = await sharp(picture).metadata();
    const page = document.addPage([(width * 72) / PPI, (height * 72) / PPI]);
    page.drawImage(await document.embedJpg(picture), {
      x: 0,
      y: 0,
      width: page.getWidth(),
      height: page.getHeight(),
    });
    for (const [half, position] of [left, right].entries()) readable(page, font, position, half, lies.turn);
  }
  return document.save({ useObjectStreams: true, addDefaultPage: false, updateFieldAppearances: false });
}

/** What is read on the covers, which have no number. */
const ON_COVERS: Record<number, string> = { 1: 'Rule Book', [PAGES]: 'To be carried on duty' };

/** The number of a page where its folio shows, or the words on a cover, as text that does not show. */
function readable(
  page: ReturnType<PDFDocument['addPage']>,
  font: PDFFont,
  position: number,
  half: number,
  turn: number,
): void {
  const words = ON_COVERS[position];
  const [x, y] = [mm((half + 0.5) * WIDTH) - 4, words ? mm(HEIGHT / 2) : mm(7)];
  const [w, h] = [mm(2 * WIDTH), mm(HEIGHT)];
  const at = { 0: { x, y }, 90: { x: y, y: w - x }, 180: { x: w - x, y: h - y }, 270: { x: h - y, y: x } }[
    turn as 0 | 90 | 180 | 270
  ];
  page.drawText(words ?? String(position), {
    ...at,
    size: 8,
    font,
    rotate: { type: 'degrees', angle: -turn } as never,
    renderMode: TextRenderingMode.Invisible,
  });
}

/** The booklet as pictures, as scanners without a program of their own deliver it: one a scan, in the order in which they come. */
export async function scanRuleBook({
  without = [],
  lies = LIES,
  frontsFirst = false,
  glass,
  twice = [],
}: Scanning & {
  /** What the scanner makes of every scan. */
  glass: Omit<OnGlass, 'ppi' | 'turn' | 'skew'>;
  /** Sheets that were fed together with the one before, so that only the back of this one was scanned. */
  twice?: readonly number[];
}): Promise<{ name: string; bytes: Buffer }[]> {
  const pages = await drawn();
  const ending = glass.quality ? 'jpg' : 'tif';
  const found: { name: string; bytes: Buffer }[] = [];
  for (const { n, left, right } of scansOf(without, frontsFirst)) {
    const [sheet, side] = [n >> 1, n % 2 ? 'back' : 'front'];
    if (side === 'front' && twice.includes(sheet)) continue;
    const lie = entryAt(lies, n);
    const bytes = await scanned(
      { pages: [left, right].map((page) => entryAt(pages, page - 1)) },
      { ...glass, ppi: PPI, ...lie },
    );
    const number = String(found.length + 1).padStart(3, '0');
    found.push({ name: frontsFirst ? `${side}-${sheet + 1}.${ending}` : `scan-${number}.${ending}`, bytes });
  }
  return found;
}

/** Both sides of the sheets that were scanned, in that order; `n` counts the sides of all. */
function scansOf(without: readonly number[], frontsFirst: boolean) {
  const sheets = Array.from({ length: PAGES / 4 }, (_, sheet) => sheet).filter(
    (sheet) => !without.includes(sheet),
  );
  const scans = sheets.flatMap((sheet) => [
    { n: 2 * sheet, left: PAGES - 2 * sheet, right: 2 * sheet + 1 },
    { n: 2 * sheet + 1, left: 2 * sheet + 2, right: PAGES - 2 * sheet - 1 },
  ]);
  if (frontsFirst) scans.sort((a, b) => (a.n % 2) - (b.n % 2) || a.n - b.n);
  return scans;
}

/** The booklet as its maker sent it, page by page in reading order. */
export async function drawRuleBook(): Promise<Uint8Array> {
  const paper = await Paper.create('Rule book 1931');
  for (let n = 1; n <= PAGES; n++) drawPage(paper.page(WIDTH, HEIGHT), n);
  return paper.save();
}

/** The pages of the booklet as pictures. */
async function drawn(): Promise<Gray[]> {
  const bytes = await drawRuleBook();
  const survey = await surveyPdf(bytes);
  const pdf = (await startRenderer()).open(bytes);
  const [width, height] = [Math.round((WIDTH / 25.4) * PPI), Math.round((HEIGHT / 25.4) * PPI)];
  const shown: Matrix = [PPI / 72, 0, 0, -PPI / 72, 0, height];
  const pictures = survey.pages.map((page, index) => pdf.gray(index, mediaBoxOf(page), shown, width, height));
  pdf.close();
  return pictures;
}

function drawPage(page: Drawing, n: number): void {
  if (n === 1) {
    page.text('Larkmoor Light Railway', WIDTH / 2, 46, 13, 'strong', INK.black, 'centre');
    page.text('Rule Book', WIDTH / 2, 66, 24, 'strong', INK.black, 'centre');
    page.text('1931', WIDTH / 2, 78, 13, 'plain', INK.black, 'centre');
    return;
  }
  if (n === PAGES) {
    page.text('To be carried on duty', WIDTH / 2, 74, 10, 'plain', INK.black, 'centre');
    return;
  }
  page.text(`Part ${Math.ceil(n / 4)}`, 12, 18, 12, 'strong');
  for (let i = 0; i < 5; i++) {
    const rule = (n - 2) * 5 + i + 1;
    page.text(`Rule ${rule}.`, 12, 32 + i * 20, 9, 'strong');
    const words = entryAt(RULES, rule % RULES.length).split(' ');
    page.text(words.slice(0, 7).join(' '), 12, 38 + i * 20, 8.5);
    page.text(words.slice(7).join(' '), 12, 43 + i * 20, 8.5);
  }
  page.text(String(n), WIDTH / 2, HEIGHT - 7, 9, 'strong', INK.black, 'centre');
}
