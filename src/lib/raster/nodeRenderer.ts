import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { Renderer } from './pdfium';

/** The bytes of PDFium's WebAssembly module, outside a browser. */
export async function pdfiumWasm(): Promise<ArrayBuffer> {
  const wasm = await readFile(createRequire(import.meta.url).resolve('@embedpdf/pdfium/pdfium.wasm'));
  return new Uint8Array(wasm).buffer;
}

/** Starts PDFium outside a browser. */
export const startRenderer = async (): Promise<Renderer> => Renderer.start(await pdfiumWasm());
