import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { Renderer } from './pdfium';

/** The bytes of PDFium's WebAssembly module, outside a browser. */
export async function pdfiumWasm(): Promise<ArrayBuffer> {
  const wasm = await readFile(createRequire(import.meta.url).resolve('@embedpdf/pdfium/pdfium.wasm'));
  return new Uint8Array(wasm).buffer;
}

let started: Promise<Renderer> | undefined;
/** PDFium outside a browser, started once in each process. */
export const startRenderer = (): Promise<Renderer> =>
  (started ??= pdfiumWasm().then((wasm) => Renderer.start(wasm)));
