import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { degrees, PDFDocument, PDFName, StandardFonts } from '@cantoo/pdf-lib';
import type { Docket } from '../src/lib/core/docket/docket';
import type { Survey } from '../src/lib/core/model/survey';
import { workOut } from '../src/lib/core/checks';
import { askedOf, partsOf } from '../src/lib/core/handover/outputs';
import { disagreements } from '../src/lib/core/handover/agree';
import { readWritten } from '../src/lib/pdf/read/written';
import { surveyPdf } from '../src/lib/pdf/read/survey';
import { writeWork, type PdfOutput } from '../src/lib/pdf/write/writeOutput';

/** Makers of test PDFs, and the tools from outside that judge what comes out. */
const folder = mkdtempSync(join(tmpdir(), 'folder-test-'));
let files = 0;

export function keep(bytes: Uint8Array, name = 'file.pdf'): string {
  const path = join(folder, `${++files}-${name}`);
  writeFileSync(path, bytes);
  return path;
}

export const tool = (name: string, ...args: string[]): string =>
  execFileSync(name, args, { encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'], maxBuffer: 1 << 28 });

export interface Marked {
  width?: number;
  height?: number;
  rotate?: number;
  userUnit?: number;
  /** Lower left corner of the MediaBox. */
  origin?: [number, number];
  bleed?: number;
  prefix?: string;
}

/** A PDF whose page n carries the words `Pn` at its middle, `HEADn` near its head and `FOOTn` near its foot, as seen unturned. */
export async function markedPdf(count: number, options: Marked = {}): Promise<Uint8Array> {
  const {
    width = 420,
    height = 595,
    rotate = 0,
    userUnit,
    origin = [0, 0],
    bleed = 0,
    prefix = '',
  } = options;
  const document = await PDFDocument.create({ updateMetadata: false });
  const font = await document.embedFont(StandardFonts.Helvetica);
  for (let n = 1; n <= count; n++) {
    const page = document.addPage([width + 2 * bleed, height + 2 * bleed]);
    const [x, y] = [origin[0] + bleed, origin[1] + bleed];
    page.setMediaBox(origin[0], origin[1], width + 2 * bleed, height + 2 * bleed);
    if (bleed) {
      page.setBleedBox(origin[0], origin[1], width + 2 * bleed, height + 2 * bleed);
      page.setTrimBox(x, y, width, height);
    }
    page.setRotation(degrees(rotate));
    if (userUnit) page.node.set(PDFName.of('UserUnit'), document.context.obj(userUnit));
    const put = (text: string, at: number) =>
      page.drawText(text, {
        x: x + width / 2 - font.widthOfTextAtSize(text, 12) / 2,
        y: y + at,
        size: 12,
        font,
      });
    put(`${prefix}P${n}`, height / 2);
    put(`${prefix}HEAD${n}`, height - 40);
    put(`${prefix}FOOT${n}`, 40);
  }
  return document.save({ useObjectStreams: false, addDefaultPage: false });
}

export interface Given {
  hash: string;
  bytes: Uint8Array;
  survey: Survey;
}

export async function give(bytes: Uint8Array): Promise<Given> {
  return { hash: createHash('sha256').update(bytes).digest('hex'), bytes, survey: await surveyPdf(bytes) };
}

/** Writes one output of a docket over the given sources, reads it again as every output is, and returns the path of the file. */
export async function make(docket: Docket, output: PdfOutput, ...given: Given[]): Promise<string> {
  const chunks: Uint8Array[] = [];
  const surveys = Object.fromEntries(given.map(({ hash, survey }) => [hash, survey]));
  const work = workOut(docket, surveys);
  await writeWork(work, output, {
    surveys,
    read: (source) => Promise.resolve(given.find(({ hash }) => hash === source)!.bytes),
    sink: (chunk) => void chunks.push(Buffer.from(chunk)),
    at: new Date('2026-01-05T09:00:00Z'),
  });
  const bytes = Buffer.concat(chunks);
  const asked = askedOf(work, output)?.(partsOf(work, output)[0]!);
  const wrong = asked ? disagreements(asked, await readWritten(bytes, asked)) : [];
  if (wrong.length) throw new Error(`what was written is not what was asked: ${JSON.stringify(wrong)}`);
  return keep(bytes);
}

/** `/Rotate` of each page (poppler). */
export const rotationsOf = (path: string): number[] =>
  [...tool('pdfinfo', '-f', '1', '-l', '100000', path).matchAll(/^Page\s+\d+ rot:\s+(\d+)/gm)].map(([, by]) =>
    Number(by),
  );

/** Words of each page with the middle of their bounds, in points from the page's lower left corner (poppler). */
export function wordsOf(path: string): { text: string; x: number; y: number }[][] {
  const rotations = rotationsOf(path);
  return tool('pdftotext', '-bbox', path, '-')
    .split('<page ')
    .slice(1)
    .map((page, index) => {
      // Poppler gives the sides of a turned page as they are before the turn.
      const up = rotations[index]! % 180 ? 'width' : 'height';
      const height = Number(new RegExp(`${up}="([\\d.]+)"`).exec(page)![1]);
      return [
        ...page.matchAll(
          /<word xMin="([\d.-]+)" yMin="([\d.-]+)" xMax="([\d.-]+)" yMax="([\d.-]+)">([^<]*)</g,
        ),
      ].map(([, x0, y0, x1, y1, text]) => ({
        text: text!,
        x: (Number(x0) + Number(x1)) / 2,
        y: height - (Number(y0) + Number(y1)) / 2,
      }));
    });
}

/** Boxes of each page as poppler reads them: [x0, y0, x1, y1] by name. */
export function boxesOf(path: string): Record<string, number[]>[] {
  const pages: Record<string, number[]>[] = [];
  for (const [, page, name, numbers] of tool('pdfinfo', '-box', '-f', '1', '-l', '100000', path).matchAll(
    /^Page\s+(\d+) (\w+Box):\s+(.*)$/gm,
  ))
    (pages[Number(page) - 1] ??= {})[name!] = numbers!.trim().split(/\s+/).map(Number);
  return pages;
}

/** The plates of a file as Ghostscript separates them: by page, the bytes of each by its ink. */
export async function platesOf(path: string): Promise<Map<string, Buffer>[]> {
  const folder = mkdtempSync(join(tmpdir(), 'folder-plates-'));
  tool(
    'gs',
    '-q',
    '-dBATCH',
    '-dNOPAUSE',
    '-dSAFER',
    '-sDEVICE=tiffsep',
    '-r144',
    '-o',
    join(folder, 'p%d.tif'),
    path,
  );
  const pages: Map<string, Buffer>[] = [];
  for (const file of readdirSync(folder)) {
    const plate = /^p(\d+)\((.*)\)\.tif$/.exec(file);
    if (!plate) continue;
    const raw = await sharp(readFileSync(join(folder, file)))
      .raw()
      .toBuffer();
    (pages[Number(plate[1]) - 1] ??= new Map()).set(plate[2]!, raw);
  }
  return pages;
}

export const readBack = (path: string): Buffer => readFileSync(path);

/** A PDF of hand-written objects, numbered from 1, the first of them its catalog; strings that are streams have their data in them. */
export function writtenPdf(objects: readonly (string | Uint8Array)[], trailer = ''): Buffer {
  const parts: Uint8Array[] = [Buffer.from('%PDF-1.7\n')];
  const length = () => parts.reduce((sum, part) => sum + part.length, 0);
  const places = objects.map((object, n) => {
    const at = length();
    parts.push(
      Buffer.from(`${n + 1} 0 obj\n`),
      typeof object === 'string' ? Buffer.from(object, 'latin1') : object,
      Buffer.from('\nendobj\n'),
    );
    return at;
  });
  const table = length();
  const lines = places.map((at) => `${String(at).padStart(10, '0')} 00000 n \n`).join('');
  parts.push(
    Buffer.from(
      `xref\n0 ${objects.length + 1}\n0000000000 65535 f \n${lines}trailer\n<< /Size ${objects.length + 1} /Root 1 0 R ${trailer} >>\nstartxref\n${table}\n%%EOF\n`,
    ),
  );
  return Buffer.concat(parts);
}
