/// <reference lib="webworker" />
import wasmUrl from '@embedpdf/pdfium/pdfium.wasm?url';
import type { Box } from '../core/measure/box';
import { bmpHeader } from './bmp';
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
const renderer = fetch(wasmUrl).then(async (response) => Renderer.start(await response.arrayBuffer()));
const open = new Map<string, OpenSource>();

self.onmessage = async ({ data }: MessageEvent<RenderRequest>) => {
  const { key, url, index, pixels } = data;
  try {
    const source = open.get(url) ?? (await openSource(url));
    const { width, height, rgba } = source.pdf.render(index, data.media, data.width, data.height, data.clear);
    if (source.missed.away) throw source.missed.away;
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
  const pdfium = await renderer;
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

async function fetched(url: string, headers: Record<string, string>): Promise<Response> {
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
