import { init, type WrappedPdfiumModule } from '@embedpdf/pdfium';
import { hasArea, heightOf, intersect, widthOf, type Box, type Size } from '../core/measure/box';
import {
  applyToBox,
  applyToPoint,
  compose,
  scale,
  turnIn,
  turnOf,
  type Matrix,
} from '../core/measure/matrix';
import type { Drawn, SurveyPage } from '../core/model/survey';
import type { Gray } from './gray';
import {
  coarsestImage,
  darkBounds,
  inkBounds,
  jpegFilling,
  leanOfWords,
  loneNumbers,
  pageObjects,
  scanOn,
  textBounds,
} from './drawn';

/** A picture of a page: red, green, blue, alpha in bytes, rows from the head down. */
export interface Raster {
  width: number;
  height: number;
  rgba: Uint8ClampedArray<ArrayBuffer>;
}

const BGRA = 4;
/** Shares of red, green and blue in how bright something looks, in 256ths (ITU-R BT.601). */
const [RED, GREEN, BLUE] = [77, 150, 29];
/** Anti-aliased for screens; red and blue as RGBA has them. */
const RENDER_FLAGS = 0x10;
/** What FPDFPage_Flatten makes part of a page: annotations and fields that print, as they do on the sheets. */
export const WHAT_PRINTS = 1;
const WHITE = 0xffffffff;
/** Ink is measured to half a point; very large pages more coarsely. */
const INK_PIXELS_A_POINT = 2;
const MOST_INK_PIXELS = 6000;

/** Scans are looked at with no more dots an inch than these, and no more in all. */
const [MOST_SCAN_PPI, MOST_SCAN_PIXELS] = [300, 40e6];

/** A scan as it is seen. */
export interface Seen {
  gray: Gray;
  ppi: number;
}

/** Starts PDFium from the bytes of its WebAssembly module. */
export async function startPdfium(wasmBinary: ArrayBuffer): Promise<WrappedPdfiumModule> {
  const pdfium = await init({ wasmBinary });
  pdfium.FPDF_InitLibraryWithConfig?.(0 as never);
  return pdfium;
}

/** PDFium, started once in whatever thread this is. */
export class Renderer {
  private constructor(private readonly pdfium: WrappedPdfiumModule) {}

  /** Starts PDFium from the bytes of its WebAssembly module. */
  static async start(wasmBinary: ArrayBuffer): Promise<Renderer> {
    return new Renderer(await startPdfium(wasmBinary));
  }

  /** Opens a PDF; its bytes stay in PDFium's memory until it is closed. Throws Error when PDFium cannot read it. */
  open(bytes: Uint8Array): OpenPdf {
    const { pdfium } = this.pdfium;
    const at = pdfium.wasmExports.malloc(bytes.length);
    if (!at) throw new Error('not enough memory to open the file');
    pdfium.HEAPU8.set(bytes, at);
    const document = this.pdfium.FPDF_LoadMemDocument(at, bytes.length, '');
    if (!document) {
      pdfium.wasmExports.free(at);
      throw new Error('the renderer cannot read the file');
    }
    return new OpenPdf(this.pdfium, document, () => pdfium.wasmExports.free(at));
  }

  /**
   * Opens a PDF of so many bytes that lies elsewhere: `read` gives those that PDFium asks for, from an offset, and may throw.
   * Throws Error when PDFium cannot read it.
   */
  openParts(length: number, read: (from: number, count: number) => Uint8Array): OpenPdf {
    const { pdfium } = this.pdfium;
    const give = (_: number, from: number, into: number, count: number): number => {
      try {
        pdfium.HEAPU8.set(read(from >>> 0, count), into);
        return 1;
      } catch {
        return 0;
      }
    };
    const giver = pdfium.addFunction(give, 'iiiii');
    // FPDF_FILEACCESS: length, function, its first parameter; each 32 bits in WebAssembly.
    const access = pdfium.wasmExports.malloc(12);
    new DataView(pdfium.HEAPU8.buffer).setUint32(access, length, true);
    new DataView(pdfium.HEAPU8.buffer).setUint32(access + 4, giver, true);
    new DataView(pdfium.HEAPU8.buffer).setUint32(access + 8, 0, true);
    const release = () => {
      pdfium.removeFunction(giver);
      pdfium.wasmExports.free(access);
    };
    const document = this.pdfium.FPDF_LoadCustomDocument(access, '');
    if (document) return new OpenPdf(this.pdfium, document, release);
    release();
    throw new Error('the renderer cannot read the file');
  }
}

/** PDFium's numbers have 24 bits: edges that differ by less, in points, are the same to it. */
const FLOAT_STEP = 0.002;
/** Pages that stay open. */
const MOST_OPEN = 4;

export class OpenPdf {
  private readonly open = new Map<string, number>();

  constructor(
    private readonly p: WrappedPdfiumModule,
    private readonly document: number,
    /** Gives back what the document was read from. */
    private readonly release: () => void,
  ) {}

  /**
   * Measures what is drawn on a page (from 0): the ink by rendering it, text and images by asking PDFium for them.
   * Boxes come out as the page is seen. Of a scan the picture is given, if it is known.
   */
  measure(index: number, { toUpright, userUnit, boxes }: SurveyPage, media: Box, scan?: Seen): Drawn {
    const size = { width: widthOf(boxes.media), height: heightOf(boxes.media) };
    const ink = scan ? darkBounds(scan.gray, size) : this.inkOf(index, media, size);
    const page = this.p.FPDF_LoadPage(this.document, index);
    try {
      const raw = ink && textBounds(this.p, page);
      const text = raw && intersect(ink, applyToBox(toUpright, raw));
      const leans = turnIn(toUpright);
      const numbers = loneNumbers(this.p, page).map(({ value, x, y, turn }) => ({
        value,
        ...applyToPoint(toUpright, x, y),
        turn: turnOf(turn - leans)!,
      }));
      const lean = leanOfWords(this.p, page);
      const objects = pageObjects(this.p, page, Math.abs((media.x1 - media.x0) * (media.y1 - media.y0))).map(
        ({ kind, box }) => ({ kind, box: applyToBox(toUpright, box) }),
      );
      const ppi = coarsestImage(this.p, page, userUnit);
      return {
        ...(ink ? { ink } : {}),
        ...(text && hasArea(text) ? { text } : {}),
        ...(ppi ? { ppi } : {}),
        ...(numbers.length ? { numbers } : {}),
        ...(lean === undefined ? {} : { leans: turnOf(lean - leans)! }),
        ...(objects.length ? { objects } : {}),
      };
    } finally {
      this.p.FPDF_ClosePage(page);
    }
  }

  /** Renders the whole MediaBox of a page (from 0), as seen, to `width` × `height` pixels, on white or, where `clear`, on nothing. `media` is the box in the page's own user space. */
  render(index: number, media: Box, width: number, height: number, clear = false): Raster {
    const ground = clear ? 0 : WHITE;
    return this.rendered(index, media, width, height, ground, (pixels) => ({
      width,
      height,
      rgba: new Uint8ClampedArray(pixels.slice().buffer),
    }));
  }

  /**
   * How bright a box of a page (from 0) is, on white, where `matrix` puts it: from the box as it is seen once the page is turned by
   * its /Rotate, in the page's units with y up from its lower left corner, to dots with y down. Nothing outside the box shows.
   */
  gray(index: number, box: Box, matrix: Matrix, width: number, height: number): Gray {
    const { p } = this;
    const page = this.kept(index, box);
    // PDFium has y down as soon as a page is shown, turned as it is to be seen.
    const shown = compose([1, 0, 0, -1, 0, p.FPDF_GetPageHeightF(page)], matrix);
    const bitmap = p.FPDFBitmap_CreateEx(width, height, BGRA, 0, 0);
    const memory = p.pdfium.wasmExports.malloc(40);
    try {
      p.FPDFBitmap_FillRect(bitmap, 0, 0, width, height, WHITE);
      p.pdfium.HEAPF32.set([...shown, 0, 0, width, height], memory / 4);
      p.FPDF_RenderPageBitmapWithMatrix(bitmap, page, memory, memory + 24, RENDER_FLAGS);
      const at = p.FPDFBitmap_GetBuffer(bitmap);
      return { width, height, light: brightness(new Int32Array(p.pdfium.HEAPU8.buffer, at, width * height)) };
    } finally {
      p.pdfium.wasmExports.free(memory);
      p.FPDFBitmap_Destroy(bitmap);
    }
  }

  private inkOf(index: number, media: Box, size: Size): Box | undefined {
    const scale = Math.min(INK_PIXELS_A_POINT, MOST_INK_PIXELS / Math.max(size.width, size.height));
    const [width, height] = [size.width, size.height].map((side) => Math.max(1, Math.round(side * scale)));
    return this.rendered(index, media, width!, height!, WHITE, (pixels) =>
      inkBounds(pixels, width!, height!, size),
    );
  }

  /** What a page (from 0) is a scan of; undefined if it is none. `media` is its box in its own user space. */
  scan(index: number, survey: SurveyPage, media: Box): { ppi: number; jpeg?: Uint8Array } | undefined {
    const page = this.p.FPDF_LoadPage(this.document, index);
    try {
      const found = scanOn(this.p, page, widthOf(media) * heightOf(media));
      if (!found) return undefined;
      const [across, down] = [widthOf(survey.boxes.media) / 72, heightOf(survey.boxes.media) / 72];
      const own = coarsestImage(this.p, page, survey.userUnit) ?? MOST_SCAN_PPI;
      const ppi = Math.min(own, MOST_SCAN_PPI, Math.sqrt(MOST_SCAN_PIXELS / (across * down)));
      const jpeg = jpegFilling(this.p, found, media);
      return { ppi, ...(jpeg ? { jpeg } : {}) };
    } finally {
      this.p.FPDF_ClosePage(page);
    }
  }

  /** Whether there is text on a page (from 0), seen or not. */
  hasText(index: number): boolean {
    const page = this.p.FPDF_LoadPage(this.document, index);
    const text = this.p.FPDFText_LoadPage(page);
    try {
      return !!text && this.p.FPDFText_CountChars(text) > 0;
    } finally {
      if (text) this.p.FPDFText_ClosePage(text);
      this.p.FPDF_ClosePage(page);
    }
  }

  /** A whole page (from 0) as it is seen, at a resolution. */
  seen(index: number, { toUpright, boxes }: SurveyPage, media: Box, ppi: number): Seen {
    const [width, height] = [widthOf, heightOf].map((side) => Math.round((side(boxes.media) / 72) * ppi));
    const unit = Math.hypot(toUpright[0], toUpright[1]);
    const shown = compose(scale(unit), [ppi / 72, 0, 0, -ppi / 72, 0, height!]);
    return { ppi, gray: this.gray(index, media, shown, width!, height!) };
  }

  /** A flattened page that stays open until a few others were asked for: it is drawn part by part. */
  private kept(index: number, box: Box): number {
    const key = `${index} ${box.x0} ${box.y0} ${box.x1} ${box.y1}`;
    const page = this.open.get(key) ?? this.flattened(index, box);
    this.open.delete(key);
    this.open.set(key, page);
    for (const [oldest, handle] of this.open) {
      if (this.open.size <= MOST_OPEN) break;
      this.open.delete(oldest);
      this.p.FPDF_ClosePage(handle);
    }
    return page;
  }

  /** A page with what prints of its annotations part of it, showing a box. */
  private flattened(index: number, box: Box): number {
    const { p } = this;
    const { x0, y0, x1, y1 } = box;
    const page = p.FPDF_LoadPage(this.document, index);
    if (!page) throw new Error(`page ${index + 1} cannot be read`);
    // Most pages are as they are to be shown, and need not be read twice.
    if (p.FPDFPage_GetAnnotCount(page) === 0 && this.shows(page, box)) return page;
    // PDFium shows the CropBox; the bench shows all there is.
    p.FPDFPage_SetCropBox(page, x0, y0, x1, y1);
    p.FPDFPage_Flatten(page, WHAT_PRINTS);
    p.FPDF_ClosePage(page);
    return p.FPDF_LoadPage(this.document, index);
  }

  /** Whether a page shows just this box. */
  private shows(page: number, { x0, y0, x1, y1 }: Box): boolean {
    const { p } = this;
    const memory = p.pdfium.wasmExports.malloc(16);
    try {
      if (!p.FPDF_GetPageBoundingBox(page, memory)) return false;
      const shown = p.pdfium.HEAPF32.subarray(memory / 4, memory / 4 + 4);
      return [x0, y1, x1, y0].every((edge, n) => Math.abs(edge - shown[n]!) < FLOAT_STEP);
    } finally {
      p.pdfium.wasmExports.free(memory);
    }
  }

  /** What `read` makes of the pixels, RGBA, which are gone after it. */
  private rendered<T>(
    index: number,
    media: Box,
    width: number,
    height: number,
    ground: number,
    read: (pixels: Uint8Array<ArrayBuffer>) => T,
  ): T {
    const { p } = this;
    const page = this.flattened(index, media);
    const bitmap = p.FPDFBitmap_CreateEx(width, height, BGRA, 0, 0);
    try {
      p.FPDFBitmap_FillRect(bitmap, 0, 0, width, height, ground);
      p.FPDF_RenderPageBitmap(bitmap, page, 0, 0, width, height, 0, RENDER_FLAGS);
      const at = p.FPDFBitmap_GetBuffer(bitmap);
      return read(p.pdfium.HEAPU8.subarray(at, at + width * height * 4) as Uint8Array<ArrayBuffer>);
    } finally {
      p.FPDFBitmap_Destroy(bitmap);
      p.FPDF_ClosePage(page);
    }
  }

  close(): void {
    for (const page of this.open.values()) this.p.FPDF_ClosePage(page);
    this.open.clear();
    this.p.FPDF_CloseDocument(this.document);
    this.release();
  }
}

/** How bright dots are, red in the lowest byte of each; most are white. */
function brightness(dots: Int32Array): Uint8Array {
  const light = new Uint8Array(dots.length).fill(255);
  for (let n = 0; n < dots.length; n++) {
    const dot = dots[n]!;
    // White has all bits set.
    if (dot !== -1)
      light[n] = (RED * (dot & 255) + GREEN * ((dot >> 8) & 255) + BLUE * ((dot >> 16) & 255)) >> 8;
  }
  return light;
}
