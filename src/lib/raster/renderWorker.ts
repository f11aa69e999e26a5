/// <reference lib="webworker" />
import wasmUrl from '@embedpdf/pdfium/pdfium.wasm?url';
import type { Box } from '../core/measure/box';
import { Renderer, type OpenPdf } from './pdfium';
import { entryOf } from '../core/entries';

export interface RenderRequest {
  /** What the picture goes by. */
  key: string;
  /** Where the source's bytes are, or those of a copy for viewing. */
  url: string;
  /** See-through if nothing is drawn. */
  clear: boolean;
  index: number;
  media: Box;
  width: number;
  height: number;
  pixels: number;
}
export type RenderAnswer =
  | { key: string; pixels: number; picture: Blob }
  | {
      key: string;
      error: string;
      /** The source could not be fetched just now: the page itself may be drawn later. */
      away: boolean;
    };

/** The bytes of a source could not be fetched. */
class Away extends Error {}

/** Sources held open at once; each keeps its bytes in memory. */
const MOST_OPEN = 8;
const renderer = fetch(wasmUrl).then(async (response) => Renderer.start(await response.arrayBuffer()));
const open = new Map<string, OpenPdf>();

self.onmessage = async ({ data }: MessageEvent<RenderRequest>) => {
  const { key, url, index, pixels } = data;
  try {
    const pdf = open.get(url) ?? (await openSource(url));
    const { width, height, rgba } = pdf.render(index, data.media, data.width, data.height, data.clear);
    const canvas = new OffscreenCanvas(width, height);
    canvas.getContext('2d')!.putImageData(new ImageData(rgba, width, height), 0, 0);
    const answer: RenderAnswer = { key, pixels, picture: await canvas.convertToBlob() };
    self.postMessage(answer);
  } catch (error) {
    self.postMessage({ key, error: String(error), away: error instanceof Away } satisfies RenderAnswer);
  }
};

async function openSource(url: string): Promise<OpenPdf> {
  const response = await fetch(url).catch((error: unknown) => {
    throw new Away(String(error));
  });
  if (response.status >= 500 || response.status === 401) throw new Away(`source ${response.status}`);
  if (!response.ok) throw new Error(`source ${response.status}`);
  const bytes = new Uint8Array(await response.arrayBuffer());
  const [oldest] = open.keys();
  if (open.size >= MOST_OPEN && oldest) {
    entryOf(open, oldest).close();
    open.delete(oldest);
  }
  const pdf = (await renderer).open(bytes);
  open.set(url, pdf);
  return pdf;
}
