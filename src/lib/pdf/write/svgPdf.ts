import { PDFDocument } from '@cantoo/pdf-lib';
import type { Size } from '../../core/measure/box';
import { PdfError } from '../objects/pdfError';

/** Points in one of each unit that a drawing's size may have; CSS counts 96 px to an inch. */
const POINTS: Record<string, number> = {
  '': 0.75,
  px: 0.75,
  pt: 1,
  pc: 12,
  mm: 72 / 25.4,
  cm: 720 / 25.4,
  in: 72,
};
/** Pixels an inch, by which a drawing without units is measured (CSS Values, 5.2). */
export const SVG_PPI = 96;
/** A drawing larger than this, in points, or in bytes, is none. */
const [MOST_POINTS, MOST_BYTES] = [14_400, 20_000_000];
/** What would not come out as it was drawn: text wants its face, and the rest a program to run it or a file that is elsewhere. */
const NOT_LINES = /<(text|image|foreignObject|script|style|use)[\s>/]/i;

/** Whether bytes are a drawing in SVG. */
export const isSvg = (bytes: Uint8Array): boolean =>
  /^\s*(?:<\?xml[^>]*>|<!--[\s\S]*?-->|<!DOCTYPE[^>]*>|\s)*<svg[\s>]/.test(
    Buffer.from(bytes.subarray(0, 4096))
      .toString('utf8')
      .replace(/^\uFEFF/, ''),
  );

/** A PDF of one page with the lines and fills of a drawing, at its real size. Throws PdfError. */
export async function writeSvgPdf(bytes: Uint8Array): Promise<Uint8Array> {
  const svg = Buffer.from(bytes).toString('utf8');
  const other = NOT_LINES.exec(svg)?.[1];
  if (other) throw new PdfError('svg-not-lines', { element: other.toLowerCase() });
  const size = bytes.length < MOST_BYTES && /<\/svg>\s*$/.test(svg) ? sizeOf(svg) : undefined;
  if (!size) throw new PdfError('svg-damaged');
  const document = await PDFDocument.create({ updateMetadata: false });
  const page = document.addPage([size.width, size.height]);
  try {
    page.drawSvg(svg, { x: 0, y: size.height, ...size });
  } catch {
    throw new PdfError('svg-damaged');
  }
  return document.save({ useObjectStreams: false });
}

/** The size in points that a drawing states, by its width and height or else by its view box. */
function sizeOf(svg: string): Size | undefined {
  const tag = /<svg[\s>][^>]*>?/.exec(svg)?.[0] ?? '';
  const lengthOf = (name: string): number | undefined => {
    const [, number, unit] =
      new RegExp(`\\s${name}\\s*=\\s*["']\\s*([\\d.]+)\\s*(\\w*)\\s*["']`).exec(tag) ?? [];
    return number === undefined ? undefined : Number(number) * (POINTS[unit!] ?? NaN);
  };
  const view = /\sviewBox\s*=\s*["']\s*[-\d.e]+[\s,]+[-\d.e]+[\s,]+([\d.e]+)[\s,]+([\d.e]+)/.exec(tag);
  const width = lengthOf('width') ?? Number(view?.[1]) * POINTS.px!;
  const height = lengthOf('height') ?? Number(view?.[2]) * POINTS.px!;
  const fine = (length: number) => length > 0 && length <= MOST_POINTS;
  return fine(width) && fine(height) ? { width, height } : undefined;
}
