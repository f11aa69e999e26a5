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
/** Pictures kept: this many bytes of dots; the longest unseen go first. */
const MOST_BYTES = 192 * 1024 * 1024;
/** So many are drawn at once: as many as there are cores besides the one that shows them, within these. */
const [LEAST_LANES, MOST_LANES] = [2, 3];

/** What is wanted after a pause of this length is what somebody turned to: pages come onto the mat a few a frame. */
const PAUSE_MS = 250;
/** Of many pictures those that come within this time are shown together. */
const TOGETHER_MS = 150;

/** What draws pictures, one after the other, and what it draws. */
interface Lane {
  worker: Worker;
  drawing?: { key: string; pixels: number; late: ReturnType<typeof setTimeout> } | undefined;
}
interface Wanted {
  source: string;
  index: number;
  page: SurveyPage;
  pixels: number;
  view: string;
  clear: boolean;
  /** Counts the times at which pictures were wanted, many at once. */
  turn: number;
}

/**
 * Pictures of source pages, rendered by PDFium in web workers. What somebody turned to last is drawn first, and of that what
 * was asked for first: the pages in sight, from the top.
 */
export class Pictures {
  /** What is there now, by source and page. */
  readonly ready = new SvelteMap<string, Picture>();
  /** Inks that are not shown, each name once. */
  hidden = $state.raw<readonly string[]>([]);
  /** Pages that the renderer cannot draw, by what they go by. */
  private readonly broken = new SvelteMap<string, string>();
  private readonly wanted = new Map<string, Wanted>();
  private readonly lanes: Lane[] = [];
  private turn = 0;
  private wantedAt = -Infinity;
  /** Drawn, and not shown yet. */
  private readonly arrived: RenderAnswer[] = [];
  private showing: ReturnType<typeof setTimeout> | undefined;
  private bytes = 0;

  constructor() {
    if (typeof Worker === 'undefined') return;
    const free = (navigator.hardwareConcurrency ?? 0) - 1;
    for (let n = 0; n < Math.max(LEAST_LANES, Math.min(MOST_LANES, free)); n++) {
      const lane: Lane = { worker: this.start(() => lane) };
      this.lanes.push(lane);
    }
  }

  private start(lane: () => Lane): Worker {
    const worker = new Worker(new URL('../raster/renderWorker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<RenderAnswer>) => this.receive(lane(), data);
    return worker;
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
    if (this.isComing(key, size)) return;
    if (performance.now() - this.wantedAt > PAUSE_MS) this.turn++;
    this.wantedAt = performance.now();
    this.wanted.set(key, { source, index, page, pixels: size, view: this.view, clear, turn: this.turn });
    this.next();
  }

  /** It is being drawn, or drawn and not shown yet, at no less than this size. */
  private isComing(key: string, pixels: number): boolean {
    return (
      this.lanes.some(({ drawing }) => drawing?.key === key && drawing.pixels >= pixels) ||
      this.arrived.some((answer) => answer.key === key && 'picture' in answer && answer.pixels >= pixels)
    );
  }

  /** The page is out of sight: it need not be drawn any more. */
  unwant(source: string, index: number, clear: boolean): void {
    this.wanted.delete(this.keyOf(source, index, clear));
  }

  close(): void {
    clearTimeout(this.showing);
    for (const { worker, drawing } of this.lanes) {
      worker.terminate();
      clearTimeout(drawing?.late);
    }
    for (const { url } of this.ready.values()) URL.revokeObjectURL(url);
  }

  private next(): void {
    for (const lane of this.lanes) {
      if (lane.drawing) continue;
      let first: [string, Wanted] | undefined;
      for (const each of this.wanted) if (!first || each[1].turn > first[1].turn) first = each;
      if (!first) return;
      this.wanted.delete(first[0]);
      this.draw(lane, ...first);
    }
  }

  private draw(lane: Lane, key: string, { source, index, page, pixels, view, clear }: Wanted): void {
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
      ...(view ? {} : { jpeg: page.jpeg }),
    };
    // A page that never ends is given up, with the worker that draws it: others are drawn by a new one.
    lane.drawing = { key, pixels, late: setTimeout(() => this.giveUp(lane, key), MOST_MS) };
    lane.worker.postMessage(request);
  }

  private receive(lane: Lane, answer: RenderAnswer): void {
    clearTimeout(lane.drawing?.late);
    lane.drawing = undefined;
    this.arrived.push(answer);
    this.next();
    // The last one is shown at once, those of many together.
    const isLast = this.lanes.every(({ drawing }) => !drawing);
    if (isLast) this.show();
    else this.showing ??= setTimeout(() => this.show(), TOGETHER_MS);
  }

  /** Shows what was drawn meanwhile: whatever is on the mat is painted anew each time. */
  private show(): void {
    clearTimeout(this.showing);
    this.showing = undefined;
    for (const answer of this.arrived.splice(0)) {
      const { key } = answer;
      if ('error' in answer) {
        // Where only the server was away the page is asked for again the next time it is looked at.
        if (!answer.away) this.broken.set(key, answer.error);
        // A larger one may have been drawn beside it, and have come first.
      } else if ((this.ready.get(key)?.pixels ?? 0) <= answer.pixels) this.keep(key, answer);
    }
  }

  private keep(key: string, { picture, pixels }: { picture: Blob; pixels: number }): void {
    this.forget(key);
    this.ready.set(key, { url: URL.createObjectURL(picture), pixels, bytes: picture.size });
    this.bytes += picture.size;
    for (const old of this.ready.keys()) {
      if (this.bytes <= MOST_BYTES || old === key) break;
      this.forget(old);
    }
  }

  private giveUp(lane: Lane, key: string): void {
    lane.worker.terminate();
    lane.drawing = undefined;
    this.broken.set(key, 'too slow');
    lane.worker = this.start(() => lane);
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
