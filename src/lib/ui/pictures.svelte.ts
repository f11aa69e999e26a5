import { SvelteMap } from 'svelte/reactivity';
import { heightOf, widthOf } from '../core/measure/box';
import type { SurveyPage } from '../core/pages/survey';
import { mediaBoxOf } from '../raster/mediaBox';
import type { RenderAnswer, RenderRequest } from '../raster/renderWorker';

interface Picture {
  url: string;
  pixels: number;
  bytes: number;
}

const SMALLEST = 64;
const LARGEST = 2048;
/** Pictures kept: this many bytes of packed picture; the longest unseen go first. */
const MOST_BYTES = 96 * 1024 * 1024;

/** Pictures of source pages, rendered by PDFium in a web worker. What is wanted last is drawn first. */
export class Pictures {
  /** What is there now, by source and page. */
  readonly ready = new SvelteMap<string, Picture>();
  /** Sources that the renderer cannot read. */
  readonly broken = new SvelteMap<string, string>();
  private readonly wanted = new Map<
    string,
    { source: string; index: number; page: SurveyPage; pixels: number }
  >();
  private readonly worker: Worker | undefined;
  private busy = false;
  private bytes = 0;

  constructor() {
    if (typeof Worker === 'undefined') return;
    this.worker = new Worker(new URL('../raster/renderWorker.ts', import.meta.url), { type: 'module' });
    this.worker.onmessage = ({ data }: MessageEvent<RenderAnswer>) => this.receive(data);
  }

  /** Asks for a page at least `pixels` long on its longer side. The picture there is until then stays. */
  want(source: string, index: number, page: SurveyPage, pixels: number): void {
    const key = `${source}:${index}`;
    const size = bucket(pixels);
    const has = this.ready.get(key);
    if (this.broken.has(source) || (has && has.pixels >= size)) return;
    this.wanted.delete(key);
    this.wanted.set(key, { source, index, page, pixels: size });
    this.next();
  }

  /** The page is out of sight: it need not be drawn any more. */
  unwant(source: string, index: number): void {
    this.wanted.delete(`${source}:${index}`);
  }

  close(): void {
    this.worker?.terminate();
    for (const { url } of this.ready.values()) URL.revokeObjectURL(url);
  }

  private next(): void {
    if (this.busy || !this.worker) return;
    const last = [...this.wanted].at(-1);
    if (!last) return;
    const [key, { source, index, page, pixels }] = last;
    this.wanted.delete(key);
    const [width, height] = [widthOf(page.boxes.media), heightOf(page.boxes.media)];
    const scale = pixels / Math.max(width, height);
    const request: RenderRequest = {
      source,
      url: `/api/sources/${source}`,
      index,
      media: mediaBoxOf(page),
      width: Math.max(1, Math.round(width * scale)),
      height: Math.max(1, Math.round(height * scale)),
      pixels,
    };
    this.busy = true;
    this.worker.postMessage(request);
  }

  private receive(answer: RenderAnswer): void {
    this.busy = false;
    if ('error' in answer) this.broken.set(answer.source, answer.error);
    else {
      const key = `${answer.source}:${answer.index}`;
      this.forget(key);
      this.ready.set(key, {
        url: URL.createObjectURL(answer.picture),
        pixels: answer.pixels,
        bytes: answer.picture.size,
      });
      this.bytes += answer.picture.size;
      for (const old of this.ready.keys()) {
        if (this.bytes <= MOST_BYTES || old === key) break;
        this.forget(old);
      }
    }
    this.next();
  }

  private forget(key: string): void {
    const old = this.ready.get(key);
    if (!old) return;
    URL.revokeObjectURL(old.url);
    this.bytes -= old.bytes;
    this.ready.delete(key);
  }
}

/** The next size up of 64, 91, 128, 181 … 2048: a zoom in small steps does not draw anew at each. */
function bucket(pixels: number): number {
  const steps = Math.ceil(2 * Math.log2(Math.max(1, pixels / SMALLEST)));
  return Math.min(LARGEST, Math.round(SMALLEST * 2 ** (Math.max(0, steps) / 2)));
}
