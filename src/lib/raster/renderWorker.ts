/// <reference lib="webworker" />
import wasmUrl from '@embedpdf/pdfium/pdfium.wasm?url';
import type { Box } from '../core/measure/box';
import { bmpHeader } from './bmp';
import { bareJpeg, jpegFrame, type JpegFrame } from './jpegFrame';
import { Renderer, type OpenPdf, type Raster } from './pdfium';
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
  /** All that the page shows is a JPEG that fills it, which lies there in the source. */
  jpeg?: readonly [from: number, to: number] | undefined;
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

/** Sources held open at once. */
const MOST_OPEN = 8;
/** Files up to this size are kept in memory whole; of larger ones what is asked for, in blocks, the latest ones kept. */
const WHOLE_BYTES = 4 << 20;
const BLOCK_BYTES = 512 << 10;
const MOST_BLOCKS = 64;

/** A source with its file open, and why bytes of it could not be had, where that was so. */
interface OpenSource {
  pdf: OpenPdf;
  missed: Missed;
}
interface Missed {
  away?: Away;
}
/** PDFium, started when the first page is to be drawn that is no photograph; and anew where it could not be had. */
let renderer: Promise<Renderer> | undefined;
const started = (): Promise<Renderer> =>
  (renderer ??= fetched(wasmUrl)
    .then(async (response) => Renderer.start(await response.arrayBuffer()))
    .catch((error: unknown) => {
      renderer = undefined;
      throw error;
    }));
const open = new Map<string, OpenSource>();

self.onmessage = async ({ data }: MessageEvent<RenderRequest>) => {
  const { key, url, pixels } = data;
  try {
    const photograph = data.jpeg && (await photographOf(data, data.jpeg));
    const { width, height, rgba } = photograph ?? (await drawn(data));
    const picture = new Blob([bmpHeader({ width, height, rgba }), rgba], { type: 'image/bmp' });
    const answer: RenderAnswer = { key, pixels, picture };
    self.postMessage(answer);
  } catch (error) {
    const away = error instanceof Away;
    // PDFium remembers what it could not read: the next time the file is opened anew.
    if (away) close(url);
    self.postMessage({ key, error: String(error), away } satisfies RenderAnswer);
  }
};

/** A page as PDFium draws it. Throws Away where parts of its source could not be had. */
async function drawn({ url, index, media, width, height, clear }: RenderRequest): Promise<Raster> {
  const source = open.get(url) ?? (await openSource(url));
  const raster = source.pdf.render(index, media, width, height, clear);
  if (source.missed.away) throw source.missed.away;
  return raster;
}

/** A JPEG that is all of a page, as the browser unpacks it, which is many times as fast; nothing where it cannot. */
async function photographOf(
  { url, width, height }: RenderRequest,
  [from, to]: readonly [number, number],
): Promise<Raster | undefined> {
  const response = await fetched(url, { range: `bytes=${from}-${to - 1}` });
  const bytes = await response.arrayBuffer();
  const whole = new Uint8Array(bytes);
  const jpeg = response.status === 206 ? whole : whole.subarray(from, to);
  try {
    const bare = bareJpeg(jpeg);
    const coarse = await coarsely(bare, jpegFrame(jpeg), width, height).catch(() => undefined);
    const picture = await createImageBitmap(coarse ?? bare, {
      resizeWidth: width,
      resizeHeight: height,
      resizeQuality: 'medium',
      colorSpaceConversion: 'none',
    }).finally(() => coarse?.close());
    const canvas = new OffscreenCanvas(width, height).getContext('2d')!;
    canvas.drawImage(picture, 0, 0);
    picture.close();
    return { width, height, rgba: canvas.getImageData(0, 0, width, height).data };
  } catch {
    return undefined;
  }
}

/**
 * A JPEG unpacked in as few eighths of its dots as a picture of this size needs, which is two to five times as fast; nothing
 * where that is more than half of them, or the browser cannot: it can where the address is safe (https, or this machine).
 */
async function coarsely(
  jpeg: Blob,
  frame: JpegFrame | undefined,
  width: number,
  height: number,
): Promise<VideoFrame | undefined> {
  if (!frame || typeof ImageDecoder === 'undefined') return undefined;
  const eighths = Math.ceil(8 * Math.max(width / frame.width, height / frame.height));
  if (eighths > MOST_EIGHTHS) return undefined;
  const decoder = new ImageDecoder({
    data: await jpeg.arrayBuffer(),
    type: jpeg.type,
    colorSpaceConversion: 'none',
    desiredWidth: Math.ceil((frame.width * eighths) / 8),
    desiredHeight: Math.ceil((frame.height * eighths) / 8),
  });
  try {
    return (await decoder.decode()).image;
  } finally {
    decoder.close();
  }
}
const MOST_EIGHTHS = 4;

function close(url: string): void {
  open.get(url)?.pdf.close();
  open.delete(url);
}

async function openSource(url: string): Promise<OpenSource> {
  const begun = await fetched(url, { range: `bytes=0-${WHOLE_BYTES - 1}` });
  const length = Number(/\/(\d+)$/.exec(begun.headers.get('content-range') ?? '')?.[1] ?? 0);
  const bytes = new Uint8Array(await begun.arrayBuffer());
  const [oldest] = open.keys();
  if (open.size >= MOST_OPEN && oldest) close(oldest);
  const pdfium = await started();
  const missed: Missed = {};
  try {
    const pdf =
      length > bytes.length
        ? pdfium.openParts(
            length,
            blocksOf(url, length, (away) => (missed.away = away)),
          )
        : pdfium.open(bytes);
    const source = { pdf, missed };
    open.set(url, source);
    return source;
  } catch (error) {
    throw missed.away ?? error;
  }
}

async function fetched(url: string, headers: Record<string, string> = {}): Promise<Response> {
  const response = await fetch(url, { headers }).catch((error: unknown) => {
    throw new Away(String(error));
  });
  if (response.status >= 500 || response.status === 401) throw new Away(`source ${response.status}`);
  if (!response.ok) throw new Error(`source ${response.status}`);
  return response;
}

/** Reads parts of a file by blocks. PDFium waits for what it asks for, so that a block is fetched while this thread waits. */
function blocksOf(
  url: string,
  length: number,
  onaway: (away: Away) => void,
): (from: number, count: number) => Uint8Array {
  const blocks = new Map<number, Uint8Array>();
  /** Fetches blocks up to and without the last in one go. */
  const fetchBlocks = (first: number, end: number): void => {
    const request = new XMLHttpRequest();
    request.open('GET', url, false);
    request.responseType = 'arraybuffer';
    const from = first * BLOCK_BYTES;
    request.setRequestHeader('range', `bytes=${from}-${Math.min(length, end * BLOCK_BYTES) - 1}`);
    try {
      request.send();
      if (request.status !== 206) throw new Error(`source ${request.status}`);
    } catch (error) {
      const away = new Away(String(error));
      onaway(away);
      throw away;
    }
    const bytes = new Uint8Array(request.response as ArrayBuffer);
    for (let n = first; n < end; n++)
      blocks.set(n, bytes.subarray((n - first) * BLOCK_BYTES, (n - first + 1) * BLOCK_BYTES));
  };
  return (from, count) => {
    const [first, end] = [Math.floor(from / BLOCK_BYTES), Math.ceil((from + count) / BLOCK_BYTES)];
    for (let n = first; n < end; n++) {
      if (blocks.has(n)) continue;
      let to = n + 1;
      while (to < end && !blocks.has(to)) to++;
      fetchBlocks(n, to);
    }
    const out = new Uint8Array(count);
    for (let n = first; n < end; n++) {
      const block = entryOf(blocks, n);
      // The longest unused is the first.
      blocks.delete(n);
      blocks.set(n, block);
      const at = n * BLOCK_BYTES;
      const part = block.subarray(Math.max(0, from - at), from + count - at);
      out.set(part, Math.max(0, at - from));
    }
    for (const oldest of blocks.keys()) {
      if (blocks.size <= MOST_BLOCKS) break;
      blocks.delete(oldest);
    }
    return out;
  };
}
