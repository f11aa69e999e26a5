import { init, type WrappedPdfiumModule } from '@embedpdf/pdfium';
import type { Box } from '../core/measure/box';

/** A picture of a page: red, green, blue, alpha in bytes, rows from the head down. */
export interface Raster {
  width: number;
  height: number;
  rgba: Uint8ClampedArray<ArrayBuffer>;
}

const BGRA = 4;
/** Anti-aliased for screens; red and blue as RGBA has them; annotations left out, as on the sheets. */
const RENDER_FLAGS = 0x10;
const WHITE = 0xffffffff;

/** PDFium, started once in whatever thread this is. */
export class Renderer {
  private constructor(private readonly pdfium: WrappedPdfiumModule) {}

  /** Starts PDFium from the bytes of its WebAssembly module. */
  static async start(wasmBinary: ArrayBuffer): Promise<Renderer> {
    const pdfium = await init({ wasmBinary });
    pdfium.FPDF_InitLibraryWithConfig?.(0 as never);
    return new Renderer(pdfium);
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
    return new OpenPdf(this.pdfium, document, at);
  }
}

export class OpenPdf {
  constructor(
    private readonly pdfium: WrappedPdfiumModule,
    private readonly document: number,
    private readonly memory: number,
  ) {}

  /** Renders the whole MediaBox of a page (from 0), as seen, to `width` × `height` pixels on white. `media` is the box in the page's own user space. */
  render(index: number, media: Box, width: number, height: number): Raster {
    const p = this.pdfium;
    let page = p.FPDF_LoadPage(this.document, index);
    if (!page) throw new Error(`page ${index + 1} cannot be read`);
    // PDFium shows the CropBox; the bench shows all there is.
    p.FPDFPage_SetCropBox(page, media.x0, media.y0, media.x1, media.y1);
    p.FPDF_ClosePage(page);
    page = p.FPDF_LoadPage(this.document, index);
    const bitmap = p.FPDFBitmap_CreateEx(width, height, BGRA, 0, 0);
    try {
      p.FPDFBitmap_FillRect(bitmap, 0, 0, width, height, WHITE);
      p.FPDF_RenderPageBitmap(bitmap, page, 0, 0, width, height, 0, RENDER_FLAGS);
      const at = p.FPDFBitmap_GetBuffer(bitmap);
      return {
        width,
        height,
        rgba: new Uint8ClampedArray(p.pdfium.HEAPU8.slice(at, at + width * height * 4).buffer),
      };
    } finally {
      p.FPDFBitmap_Destroy(bitmap);
      p.FPDF_ClosePage(page);
    }
  }

  close(): void {
    this.pdfium.FPDF_CloseDocument(this.document);
    this.pdfium.pdfium.wasmExports.free(this.memory);
  }
}
