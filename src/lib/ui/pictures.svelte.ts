import { SvelteMap } from 'svelte/reactivity';
import { heightOf, widthOf } from '../core/measure/box';
import type { SurveyPage } from '../core/model/survey';
import { mediaBoxOf } from '../raster/mediaBox';
import type { RenderAnswer, RenderRequest } from '../raster/renderWorker';

interface Picture {
  url: string;
  pixels: number;
  bytes: number;
}

/** A page that takes longer to fetch and draw is told as broken. */
const MOST_MS = 30_000;
const SMALLEST = 64;
const LARGEST = 2048;
/** Pictures kept: this many bytes of packed picture; the longest unseen go first. */
const MOST_BYTES = 96 * 1024 * 1024;

/** Pictures of source pages, rendered by PDFium in a web worker. What is wanted last is drawn first. */
export class Pictures {
  /** What is there now, by source and page. */
  readonly ready = new SvelteMap<string, Picture>();
  /** Inks that are not shown, each name once. */
  hidden = $state.raw<readonly string[]>([]);
  /** Pages that the renderer cannot draw, by what they go by. */
  private readonly broken = new SvelteMap<string, string>();
  private readonly wanted = new Map<
    string,
    { source: string; index: number; page: SurveyPage; pixels: number; view: string; clear: boolean }
  >();
  private worker: Worker | undefined;
  /** What is being drawn. */
  private drawing: { key: string; late: ReturnType<typeof setTimeout> } | undefined;
  private bytes = 0;

  constructor() {
    if (typeof Worker !== 'undefined') this.start();
  }

  private start(): void {
    this.worker = new Worker(new URL('../raster/renderWorker.ts', import.meta.url), { type: 'module' });
    this.worker.onmessage = ({ data }: MessageEvent<RenderAnswer>) => this.receive(data);
  }

  /** What a picture goes by: `clear` ones are see-through if nothing is drawn. */
  private keyOf(source: string, index: number, clear: boolean): string {
    return `${source}:${index}${clear ? ' clear' : ''}${this.hidden.length ? ` ${this.view}` : ''}`;
  }
  private get view(): string {
    return this.hidden.length ? JSON.stringify(this.hidden) : '';
  }

  /** The picture of a page as it is to be seen; while that is being drawn, the one with all inks. */
  urlOf(source: string, index: number, clear: boolean): string | undefined {
    const plain = `${source}:${index}${clear ? ' clear' : ''}`;
    return (this.ready.get(this.keyOf(source, index, clear)) ?? this.ready.get(plain))?.url;
  }

  isBroken(source: string, index: number, clear: boolean): boolean {
    return this.broken.has(this.keyOf(source, index, clear));
  }

  /** Asks for a page at least `pixels` long on its longer side. The picture there is until then stays. */
  want(source: string, index: number, page: SurveyPage, pixels: number, clear: boolean): void {
    const key = this.keyOf(source, index, clear);
    const size = bucket(pixels);
    const has = this.ready.get(key);
    if (this.broken.has(key) || (has && has.pixels >= size)) return;
    this.wanted.delete(key);
    this.wanted.set(key, { source, index, page, pixels: size, view: this.view, clear });
    this.next();
  }

  /** The page is out of sight: it need not be drawn any more. */
  unwant(source: string, index: number, clear: boolean): void {
    this.wanted.delete(this.keyOf(source, index, clear));
  }

  close(): void {
    this.worker?.terminate();
    clearTimeout(this.drawing?.late);
    for (const { url } of this.ready.values()) URL.revokeObjectURL(url);
  }

  private next(): void {
    if (this.drawing || !this.worker) return;
    const last = [...this.wanted].at(-1);
    if (!last) return;
    const [key, { source, index, page, pixels, view, clear }] = last;
    this.wanted.delete(key);
    const [width, height] = [widthOf(page.boxes.media), heightOf(page.boxes.media)];
    const scale = pixels / Math.max(width, height);
    const request: RenderRequest = {
      key,
      // Inks are hidden in a copy that is made for viewing.
      url: `/api/sources/${source}${view ? `/inks?hide=${encodeURIComponent(view)}` : ''}`,
      clear,
      index,
      media: mediaBoxOf(page),
      width: Math.max(1, Math.round(width * scale)),
      height: Math.max(1, Math.round(height * scale)),
      pixels,
    };
    // A page that never ends is given up, with the worker that draws it: others are drawn by a new one.
    this.drawing = { key, late: setTimeout(() => this.giveUp(key), MOST_MS) };
    this.worker.postMessage(request);
  }

  private receive(answer: RenderAnswer): void {
    clearTimeout(this.drawing?.late);
    this.drawing = undefined;
    if ('error' in answer) {
      // Where only the server was away the page is asked for again the next time it is looked at.
      if (!answer.away) this.broken.set(answer.key, answer.error);
    } else {
      const { key } = answer;
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

  private giveUp(key: string): void {
    this.worker?.terminate();
    this.drawing = undefined;
    this.broken.set(key, 'too slow');
    this.start();
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
