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

/** Of larger files two may not find room in the memory that one PDFium can have. */
const LARGE_BYTES = 256 * 2 ** 20;
let shared: Promise<Renderer> | undefined;
/** The PDFium of this process, for a file of so many bytes: what is opened in it is to be closed. A large file has one of its own. */
export const sharedRenderer = (bytes = 0): Promise<Renderer> =>
  bytes > LARGE_BYTES ? startRenderer() : (shared ??= startRenderer());
