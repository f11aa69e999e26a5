import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { Renderer } from './pdfium';

/** Starts PDFium outside a browser. */
export async function startRenderer(): Promise<Renderer> {
  const wasm = await readFile(createRequire(import.meta.url).resolve('@embedpdf/pdfium/pdfium.wasm'));
  return Renderer.start(new Uint8Array(wasm).buffer);
}
