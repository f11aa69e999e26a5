/// <reference lib="webworker" />
import wasmUrl from '@embedpdf/pdfium/pdfium.wasm?url';
import type { Box } from '../core/measure/box';
import { Renderer, type OpenPdf } from './pdfium';

export interface RenderRequest {
  source: string;
  /** Where the source's bytes are. */
  url: string;
  index: number;
  media: Box;
  width: number;
  height: number;
  pixels: number;
}
export type RenderAnswer =
  | { source: string; index: number; pixels: number; picture: Blob }
  | { source: string; index: number; error: string };

/** Sources held open at once; each keeps its bytes in memory. */
const MOST_OPEN = 8;
const renderer = fetch(wasmUrl).then(async (response) => Renderer.start(await response.arrayBuffer()));
const open = new Map<string, OpenPdf>();

self.onmessage = async ({ data }: MessageEvent<RenderRequest>) => {
  const { source, index, pixels } = data;
  try {
    const pdf = open.get(source) ?? (await openSource(data));
    const { width, height, rgba } = pdf.render(index, data.media, data.width, data.height);
    const canvas = new OffscreenCanvas(width, height);
    canvas.getContext('2d')!.putImageData(new ImageData(rgba, width, height), 0, 0);
    const answer: RenderAnswer = { source, index, pixels, picture: await canvas.convertToBlob() };
    self.postMessage(answer);
  } catch (error) {
    self.postMessage({ source, index, error: String(error) } satisfies RenderAnswer);
  }
};

async function openSource({ source, url }: RenderRequest): Promise<OpenPdf> {
  const response = await fetch(url);
  if (!response.ok) throw new Error(`source ${response.status}`);
  const bytes = new Uint8Array(await response.arrayBuffer());
  const [oldest] = open.keys();
  if (open.size >= MOST_OPEN && oldest) {
    open.get(oldest)!.close();
    open.delete(oldest);
  }
  const pdf = (await renderer).open(bytes);
  open.set(source, pdf);
  return pdf;
}
