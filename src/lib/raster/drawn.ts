import type { WrappedPdfiumModule } from '@embedpdf/pdfium';
import { bounds, hasArea, heightOf, widthOf, type Box, type Size } from '../core/measure/box';
import {
  applyToBox,
  compose,
  IDENTITY,
  turnOf,
  type Matrix,
  type Turn,
  matrixOf,
} from '../core/measure/matrix';
import { TOLERANCES } from '../core/measure/tolerances';
import type { Drawn } from '../core/model/survey';
import { entryAt } from '../core/entries';
import type { Gray } from './gray';

/** Text beyond this many characters is not looked at: the page is full by then. */
const MOST_CHARACTERS = 50_000;
const MOST_OBJECTS = 20_000;
const DEEPEST = 12;
/** Images with fewer pixels on a side are strips of shading, not pictures. */
const LEAST_PIXELS = 16;
/** Kinds of page object and of text rendering, as PDFium counts them (the latter as ISO 32000-1, table 106). */
const [PATH, IMAGE, FORM, INVISIBLE] = [2, 3, 5, 3];
const ALL_WHITE = 0xffffffff;

/** Bounds of all pixels that are not white, in points with y up, for a picture of a page of `size`; undefined for a white one. */
export function inkBounds(
  rgba: Uint8Array<ArrayBuffer>,
  width: number,
  height: number,
  size: Size,
): Box | undefined {
  const pixels = new Uint32Array(rgba.buffer, rgba.byteOffset, width * height);
  const first = pixels.findIndex((pixel) => pixel !== ALL_WHITE);
  if (first < 0) return undefined;
  const last = pixels.findLastIndex((pixel) => pixel !== ALL_WHITE);
  const [top, bottom] = [Math.floor(first / width), Math.floor(last / width)];
  let [left, right] = [width, -1];
  for (let row = top; row <= bottom; row++) {
    const start = row * width;
    for (let x = 0; x < left; x++) if (pixels[start + x] !== ALL_WHITE) left = x;
    for (let x = width - 1; x > right; x--) if (pixels[start + x] !== ALL_WHITE) right = x;
  }
  return inPoints({ left, right, top, bottom }, width, height, size);
}

/** Where rows and columns of dots lie on a page, with y up. */
const inPoints = (
  { left, right, top, bottom }: Record<'left' | 'right' | 'top' | 'bottom', number>,
  width: number,
  height: number,
  size: Size,
): Box => ({
  x0: (left * size.width) / width,
  x1: ((right + 1) * size.width) / width,
  y0: size.height - ((bottom + 1) * size.height) / height,
  y1: size.height - (top * size.height) / height,
});

/** The same of a picture that is only light and dark. */
export function darkBounds({ width, height, light }: Gray, size: Size): Box | undefined {
  let [left, right, top, bottom] = [width, -1, height, -1];
  for (let y = 0; y < height; y++) {
    const row = y * width;
    let [first, last] = [0, width - 1];
    while (first < width && light[row + first] === 255) first++;
    if (first === width) continue;
    while (light[row + last] === 255) last--;
    [left, right] = [Math.min(left, first), Math.max(right, last)];
    [top, bottom] = [Math.min(top, y), y];
  }
  if (right < 0) return undefined;
  return inPoints({ left, right, top, bottom }, width, height, size);
}

/** Bounds of the visible text in the page's own user space; undefined if there is none. */
export function textBounds(p: WrappedPdfiumModule, page: number): Box | undefined {
  const text = p.FPDFText_LoadPage(page);
  if (!text) return undefined;
  const memory = p.pdfium.wasmExports.malloc(32);
  try {
    const found = { x0: Infinity, y0: Infinity, x1: -Infinity, y1: -Infinity };
    const count = Math.min(MOST_CHARACTERS, p.FPDFText_CountChars(text));
    for (let i = 0; i < count; i++) {
      if (p.FPDFText_GetUnicode(text, i) <= 32 || p.FPDFText_IsGenerated(text, i) === 1) continue;
      const object = p.FPDFText_GetTextObject(text, i);
      if (object && p.FPDFTextObj_GetTextRenderMode(object) === INVISIBLE) continue;
      if (!p.FPDFText_GetCharBox(text, i, memory, memory + 8, memory + 16, memory + 24)) continue;
      const [left, right, foot, head] = new Float64Array(p.pdfium.HEAPU8.buffer.slice(memory, memory + 32));
      found.x0 = Math.min(found.x0, left!);
      found.x1 = Math.max(found.x1, right!);
      found.y0 = Math.min(found.y0, foot!);
      found.y1 = Math.max(found.y1, head!);
    }
    return found.x1 > found.x0 ? found : undefined;
  } finally {
    p.pdfium.wasmExports.free(memory);
    p.FPDFText_ClosePage(text);
  }
}

/** A number of so many digits at most is a page number. */
const MOST_DIGITS = 4;
/** Numbers of a page that are kept at most. */
const MOST_NUMBERS = 60;
/** Words nearer to each other than this share of a letter's height stand together. */
const TOGETHER = 1.2;

interface Word {
  text: string;
  box: Box;
  /** Clockwise quarter turn that sets it upright. */
  turn: Turn;
  /** It is drawn, and no text that only lies behind a scan. */
  shows: boolean;
}

/** Letters that make a word, by which a page is read. */
const WORD = /\p{L}{3}/u;

/** How a reader must turn a page clockwise to read most of its words, in the page's own user space; undefined if it has none. */
export function leanOfWords(p: WrappedPdfiumModule, page: number): Turn | undefined {
  const text = p.FPDFText_LoadPage(page);
  if (!text) return undefined;
  try {
    const counts = new Map<Turn, number>();
    for (const { text: word, turn } of wordsOf(p, text))
      if (WORD.test(word)) counts.set(turn, (counts.get(turn) ?? 0) + 1);
    return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0];
  } finally {
    p.FPDFText_ClosePage(text);
  }
}

/** Numbers that stand alone on a page, those that do not show too: a scan's text lies behind its picture. In the page's own user space. */
export function loneNumbers(
  p: WrappedPdfiumModule,
  page: number,
): { value: number; x: number; y: number; turn: Turn }[] {
  const text = p.FPDFText_LoadPage(page);
  if (!text) return [];
  try {
    const words = wordsOf(p, text);
    return words
      .filter(
        (word) =>
          word.text.length <= MOST_DIGITS &&
          /^\d+$/.test(word.text) &&
          words.every((other) => other === word || apart(word, other)),
      )
      .slice(0, MOST_NUMBERS)
      .map(({ text, box, turn }) => ({
        value: Number(text),
        x: (box.x0 + box.x1) / 2,
        y: (box.y0 + box.y1) / 2,
        turn,
      }));
  } finally {
    p.FPDFText_ClosePage(text);
  }
}

function wordsOf(p: WrappedPdfiumModule, text: number): Word[] {
  const memory = p.pdfium.wasmExports.malloc(32);
  const words: Word[] = [];
  let open: Word | undefined;
  try {
    const count = Math.min(MOST_CHARACTERS, p.FPDFText_CountChars(text));
    for (let i = 0; i < count; i++) {
      const code = p.FPDFText_GetUnicode(text, i);
      const blank = code <= 32 || code === 0xa0 || p.FPDFText_IsGenerated(text, i) === 1;
      if (blank || !p.FPDFText_GetCharBox(text, i, memory, memory + 8, memory + 16, memory + 24)) {
        open = undefined;
        continue;
      }
      const at = new DataView(p.pdfium.HEAPU8.buffer, memory, 32);
      const of = (n: number) => at.getFloat64(8 * n, true);
      const box = { x0: of(0), y0: of(2), x1: of(1), y1: of(3) };
      // How far the text leans clockwise, in radians.
      const leans = p.FPDFText_GetCharAngle(text, i);
      const turn = turnOf(-Math.round(leans / (Math.PI / 2)) * 90) ?? 0;
      if (open) {
        open.text += String.fromCodePoint(code);
        open.box = bounds([open.box, box]);
      } else {
        const object = p.FPDFText_GetTextObject(text, i);
        const shows = !object || p.FPDFTextObj_GetTextRenderMode(object) !== INVISIBLE;
        words.push((open = { text: String.fromCodePoint(code), box, turn, shows }));
      }
    }
    return words;
  } finally {
    p.pdfium.wasmExports.free(memory);
  }
}

/** Whether two words stand apart, by the height of the first's letters. */
function apart({ box, turn }: Word, { box: other }: Word): boolean {
  const upright = turn === 0 || turn === 180;
  const gap = TOGETHER * (upright ? box.y1 - box.y0 : box.x1 - box.x0);
  const [x, y] = upright ? [gap, 0] : [0, gap];
  return other.x0 > box.x1 + x || other.x1 < box.x0 - x || other.y0 > box.y1 + y || other.y1 < box.y0 - y;
}

/** Objects of a page that are kept at most, and how much of the page one may cover before it counts as its ground. */
const [MOST_KEPT, GROUND] = [240, 0.5];
/** Lines of text nearer to each other than this share of their height are one block. */
const ONE_BLOCK = 1.1;

/** What stands on a page by itself: blocks of text that shows, images, and drawings that are no ground; in the page's own user space. `area` is the page's. */
export function pageObjects(
  p: WrappedPdfiumModule,
  page: number,
  area: number,
): NonNullable<Drawn['objects']> {
  const found: NonNullable<Drawn['objects']> = textBlocks(p, page).map((box) => ({ kind: 'text', box }));
  eachObject(p, page, (kind, object, above, memory) => {
    if (kind === FORM || found.length >= MOST_KEPT) return;
    const box = boxOfObject(p, object, above, memory);
    if (box && hasArea(box) && widthOf(box) * heightOf(box) < GROUND * area)
      found.push({ kind: kind === IMAGE ? 'image' : 'path', box });
  });
  return found.slice(0, MOST_KEPT);
}

/** Bounds of an object; `above` leads from where it is drawn. */
function boxOfObject(p: WrappedPdfiumModule, object: number, above: Matrix, memory: number): Box | undefined {
  if (!p.FPDFPageObj_GetBounds(object, memory, memory + 4, memory + 8, memory + 12)) return undefined;
  const [x0, y0, x1, y1] = new Float32Array(p.pdfium.HEAPU8.buffer.slice(memory, memory + 16));
  return applyToBox(above, { x0: x0!, y0: y0!, x1: x1!, y1: y1! });
}

/** Goes through the images, drawings and forms of a page, those in forms too; `memory` has room for six numbers. */
function eachObject(
  p: WrappedPdfiumModule,
  page: number,
  met: (kind: number, object: number, above: Matrix, memory: number) => void,
): void {
  const memory = p.pdfium.wasmExports.malloc(24);
  let seen = 0;
  const visit = (object: number, above: Matrix, depth: number): void => {
    if (!object || ++seen > MOST_OBJECTS || depth > DEEPEST) return;
    const kind = p.FPDFPageObj_GetType(object);
    if (kind !== FORM && kind !== IMAGE && kind !== PATH) return;
    met(kind, object, above, memory);
    if (kind !== FORM || !p.FPDFPageObj_GetMatrix(object, memory)) return;
    const own = matrixOf(new Float32Array(p.pdfium.HEAPU8.buffer.slice(memory, memory + 24)));
    const count = p.FPDFFormObj_CountObjects(object);
    for (let i = 0; i < count; i++) visit(p.FPDFFormObj_GetObject(object, i), compose(own, above), depth + 1);
  };
  try {
    const count = p.FPDFPage_CountObjects(page);
    for (let i = 0; i < count; i++) visit(p.FPDFPage_GetObject(page, i), IDENTITY, 0);
  } finally {
    p.pdfium.wasmExports.free(memory);
  }
}

/** A scan's picture covers this share of its page at least. */
const WHOLE_PAGE = 0.8;

/** The picture of a page that is a scan: one that covers it, with no text that shows; undefined of any other. `area` is the page's. */
export function scanOn(
  p: WrappedPdfiumModule,
  page: number,
  area: number,
): { object: number; box: Box } | undefined {
  const pictures: { object: number; box: Box }[] = [];
  eachObject(p, page, (kind, object, above, memory) => {
    const box = kind === IMAGE && boxOfObject(p, object, above, memory);
    if (box) pictures.push({ object, box });
  });
  const [one, more] = pictures;
  if (!one || more || widthOf(one.box) * heightOf(one.box) < WHOLE_PAGE * area) return undefined;
  return textBounds(p, page) ? undefined : one;
}

/** The bytes of a picture that is a JPEG, upright, and fills a page exactly; undefined for any other. `media` is the page's box. */
export function jpegFilling(
  p: WrappedPdfiumModule,
  { object, box }: { object: number; box: Box },
  media: Box,
): Uint8Array | undefined {
  const off = [box.x0 - media.x0, box.y0 - media.y0, box.x1 - media.x1, box.y1 - media.y1];
  if (off.some((by) => Math.abs(by) > TOLERANCES.fills)) return undefined;
  const memory = p.pdfium.wasmExports.malloc(24);
  let at = 0;
  try {
    if (!p.FPDFPageObj_GetMatrix(object, memory)) return undefined;
    const [a, b, c, d] = matrixOf(new Float32Array(p.pdfium.HEAPU8.buffer.slice(memory, memory + 24)));
    if (a <= 0 || d <= 0 || Math.abs(b) + Math.abs(c) > 1e-4 * (a + d)) return undefined;
    const length = p.FPDFImageObj_GetImageDataRaw(object, 0, 0);
    if (!length) return undefined;
    at = p.pdfium.wasmExports.malloc(length);
    p.FPDFImageObj_GetImageDataRaw(object, at, length);
    const bytes = p.pdfium.HEAPU8.slice(at, at + length);
    return bytes[0] === 0xff && bytes[1] === 0xd8 ? bytes : undefined;
  } finally {
    p.pdfium.wasmExports.free(memory);
    if (at) p.pdfium.wasmExports.free(at);
  }
}

/** The text of a page as blocks: words that follow each other in a line, and lines that stand close. */
function textBlocks(p: WrappedPdfiumModule, page: number): Box[] {
  const text = p.FPDFText_LoadPage(page);
  if (!text) return [];
  try {
    const lines: { box: Box; high: number }[] = [];
    for (const { box, shows } of wordsOf(p, text)) {
      if (!shows) continue;
      const last = lines.at(-1);
      const high = heightOf(box);
      const level = last && Math.min(last.box.y1, box.y1) - Math.max(last.box.y0, box.y0) > high / 2;
      if (level && box.x0 - last.box.x1 < TOGETHER * high && box.x1 > last.box.x0)
        last.box = bounds([last.box, box]);
      else lines.push({ box, high });
    }
    const blocks: Box[] = [];
    for (const { box, high } of lines) {
      const near = blocks.findLastIndex(
        (block) =>
          Math.max(block.y0 - box.y1, box.y0 - block.y1) < ONE_BLOCK * high &&
          box.x0 < block.x1 &&
          box.x1 > block.x0,
      );
      if (near >= 0) blocks[near] = bounds([entryAt(blocks, near), box]);
      else blocks.push(box);
    }
    return blocks;
  } finally {
    p.FPDFText_ClosePage(text);
  }
}

/** Pixels an inch of the coarsest image on a page at the size it is drawn; undefined if there is none. */
export function coarsestImage(p: WrappedPdfiumModule, page: number, userUnit: number): number | undefined {
  let coarsest = Infinity;
  eachObject(p, page, (kind, object, above, memory) => {
    if (kind !== IMAGE || !p.FPDFPageObj_GetMatrix(object, memory)) return;
    const own = matrixOf(new Float32Array(p.pdfium.HEAPU8.buffer.slice(memory, memory + 24)));
    const [a, b, c, d] = compose(own, above);
    if (!p.FPDFImageObj_GetImagePixelSize(object, memory, memory + 4)) return;
    const [across, down] = new Uint32Array(p.pdfium.HEAPU8.buffer.slice(memory, memory + 8));
    if (across! < LEAST_PIXELS || down! < LEAST_PIXELS) return;
    for (const [count, points] of [
      [across!, Math.hypot(a, b)],
      [down!, Math.hypot(c, d)],
    ] as const)
      if (points > 0) coarsest = Math.min(coarsest, count / ((points * userUnit) / 72));
  });
  return Number.isFinite(coarsest) ? coarsest : undefined;
}
