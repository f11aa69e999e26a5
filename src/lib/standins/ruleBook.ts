import { PDFDocument, TextRenderingMode, type PDFFont } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { mm } from '../core/measure/unit';
import { surveyPdf } from '../pdf/read/survey';
import { mediaBoxOf } from '../raster/mediaBox';
import { startRenderer } from '../raster/nodeRenderer';
import { INK, Paper, type Drawing } from './paper';
import { entryAt } from '../core/entries';

/** A page of the booklet, and the resolution of its scans. */
const [WIDTH, HEIGHT, PPI] = [105, 148, 150];
const PAGES = 16;
const PAPER = { r: 236, g: 226, b: 202 };
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
  lies?: readonly { turn: 0 | 90 | 180 | 270; skew: number }[];
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
  const pages = await rasters();
  const document = await PDFDocument.create({ updateMetadata: false });
  document.setTitle('Rule book 1931, scans');
  document.setProducer('Folder demo');
  document.setCreationDate(new Date('2026-01-05T09:00:00Z'));
  const font = await document.embedFont('Helvetica');
  const sheets = Array.from({ length: PAGES / 4 }, (_, sheet) => sheet).filter(
    (sheet) => !without.includes(sheet),
  );
  const scans = sheets.flatMap((sheet) => [
    { n: 2 * sheet, left: PAGES - 2 * sheet, right: 2 * sheet + 1 },
    { n: 2 * sheet + 1, left: 2 * sheet + 2, right: PAGES - 2 * sheet - 1 },
  ]);
  if (frontsFirst) scans.sort((a, b) => (a.n % 2) - (b.n % 2) || a.n - b.n);
  for (const { n, left, right } of scans) {
    const lies = entryAt(lying, n);
    const { picture, width, height } = await scan(
      entryAt(pages, left - 1),
      entryAt(pages, right - 1),
      lies.skew,
      lies.turn,
    );
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

/** Two pages side by side on the glass, askew, turned by quarters. */
async function scan(
  left: Buffer,
  right: Buffer,
  skew: number,
  turn: number,
): Promise<{ picture: Buffer; width: number; height: number }> {
  const [across, down] = [Math.round((WIDTH / 25.4) * PPI), Math.round((HEIGHT / 25.4) * PPI)];
  const flat = await sharp({ create: { width: 2 * across, height: down, channels: 3, background: PAPER } })
    .composite([
      { input: left, left: 0, top: 0, blend: 'multiply' },
      { input: right, left: across, top: 0, blend: 'multiply' },
    ])
    .png()
    .toBuffer();
  const askew = await sharp(flat).rotate(skew, { background: PAPER }).toBuffer({ resolveWithObject: true });
  const cut = await sharp(askew.data)
    .extract({
      left: Math.floor((askew.info.width - 2 * across) / 2),
      top: Math.floor((askew.info.height - down) / 2),
      width: 2 * across,
      height: down,
    })
    .png()
    .toBuffer();
  const { data, info } = await sharp(cut)
    .rotate(turn)
    .jpeg({ quality: 70 })
    .toBuffer({ resolveWithObject: true });
  return { picture: data, width: info.width, height: info.height };
}

/** The pages of the booklet as pictures. */
async function rasters(): Promise<Buffer[]> {
  const paper = await Paper.create('Rule book 1931');
  for (let n = 1; n <= PAGES; n++) drawPage(paper.page(WIDTH, HEIGHT), n);
  const bytes = await paper.save();
  const survey = await surveyPdf(bytes);
  const pdf = (await startRenderer()).open(bytes);
  const [width, height] = [Math.round((WIDTH / 25.4) * PPI), Math.round((HEIGHT / 25.4) * PPI)];
  const pictures = await Promise.all(
    survey.pages.map((page, index) => {
      const { rgba } = pdf.render(index, mediaBoxOf(page), width, height);
      return sharp(Buffer.from(rgba), { raw: { width, height, channels: 4 } })
        .removeAlpha()
        .png()
        .toBuffer();
    }),
  );
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
