import { heightOf, widthOf, type Size } from '../../core/measure/box';
import type { MachineErrors } from '../../core/finish/errors';
import type { Surveys } from '../../core/model/survey';
import type { ArtItem } from '../../core/model/surface';
import type { SheetPlan } from '../../core/sheets/plan';
import type { Pictures } from '../pictures.svelte';
import { artOn, faceKey, fontOf, paintFace, printedFace, type Face } from './facePainter';

/** A face painted on a canvas of its own. */
export interface PaintedFace {
  canvas: HTMLCanvasElement;
  /** Goes up whenever it is painted anew. */
  version: number;
}
interface Kept extends PaintedFace {
  face: Face;
  k: number;
  /** What it was painted from. */
  shows: string;
}

/** What faces are painted from. */
export interface Painted {
  plan: SheetPlan;
  surveys: Surveys;
  selected: ReadonlySet<string>;
  errors: MachineErrors;
}

/** Faces and pictures kept; the longest unseen go first. */
const MOST_FACES = 48;
const MOST_IMAGES = 96;
/** Painting stops for the next frame after this long. */
const BUDGET_MS = 10;
/** The longer side of a face in pixels. */
const MOST_PIXELS = 1600;

/** Paints the faces of sheets that are in sight, a few at a time, and again when their pictures come. */
export class Faces {
  private readonly kept = new Map<string, Kept>();
  private readonly images = new Map<string, HTMLImageElement | 'coming'>();
  private queue: Kept[] = [];
  private frame = 0;
  private from: Painted | undefined;
  private readonly fonts = new Set<string>();
  /** Pictures that the faces in sight show. */
  private readonly inUse = new Set<string>();
  private closed = false;
  /** Goes up when a picture has been decoded, so that the faces with it are painted. */
  private decoded = $state(0);

  constructor(
    private readonly pictures: Pictures,
    /** Something was painted. */
    private readonly onpainted: () => void,
  ) {}

  /** The canvas of a face, `k` pixels a point; it is filled as its pictures come. */
  get(face: Face, k: number): PaintedFace {
    const key = faceKey(face);
    const met = this.kept.get(key);
    const [width, height] = [widthOf(face.flat), heightOf(face.flat)];
    const fine = Math.min(k, MOST_PIXELS / Math.max(width, height));
    if (met && met.k >= fine * 0.8) {
      this.kept.delete(key);
      this.kept.set(key, met);
      return met;
    }
    const canvas = met?.canvas ?? document.createElement('canvas');
    canvas.width = Math.max(1, Math.round(width * fine));
    canvas.height = Math.max(1, Math.round(height * fine));
    const made: Kept = { face, k: fine, canvas, version: (met?.version ?? 0) + 1, shows: '' };
    this.kept.set(key, made);
    for (const old of this.kept.keys()) {
      if (this.kept.size <= MOST_FACES) break;
      this.kept.delete(old);
    }
    return made;
  }

  /** Asks for the pictures of faces and paints those that have changed. Reads what it depends on: call it in an effect. */
  refresh(from: Painted, wanted: readonly Face[]): void {
    this.from = from;
    void this.decoded;
    this.inUse.clear();
    for (const face of wanted) {
      const kept = this.kept.get(faceKey(face));
      if (!kept) continue;
      const shows = this.shownBy(kept, from);
      if (shows === kept.shows) continue;
      kept.shows = shows;
      if (!this.queue.includes(kept)) this.queue.push(kept);
    }
    this.soon();
  }

  close(): void {
    this.closed = true;
    cancelAnimationFrame(this.frame);
    this.images.clear();
  }

  /** All that a face's look hangs on, in a line; its pictures are asked for. */
  private shownBy({ face, k }: Kept, { plan, surveys, selected, errors }: Painted): string {
    const printed = printedFace(plan, face, errors);
    if (!printed) return 'white';
    const urls = artOn(printed, face.flat).map((art) => {
      const { source, index, matrix, laid } = art;
      const page = surveys[source]?.pages[index];
      if (!page) return '';
      const points = Math.max(widthOf(page.boxes.media), heightOf(page.boxes.media));
      this.pictures.want(source, index, page, points * Math.hypot(matrix[0], matrix[1]) * k, !!laid);
      const url = this.pictures.urlOf(source, index, !!laid);
      return url && this.imageOf(url) ? `${url} ${matrix.join()} ${Object.values(art.clip).join()}` : '';
    });
    for (const item of printed.items) if (item.kind === 'text') this.needFont(fontOf(item));
    const chosen = printed.drawn.cells.flatMap(({ page }) =>
      page && selected.has(page.id) ? [page.id] : [],
    );
    const words = printed.items.flatMap((item) => (item.kind === 'text' ? [item.text] : []));
    return JSON.stringify([k, urls, chosen, words, printed.through, this.fonts.size]);
  }

  private imageOf(url: string): HTMLImageElement | undefined {
    this.inUse.add(url);
    const met = this.images.get(url);
    if (met === 'coming') return undefined;
    if (met) return met;
    this.images.set(url, 'coming');
    void this.decode(url);
    return undefined;
  }

  private async decode(url: string): Promise<void> {
    try {
      const image = new Image();
      image.src = url;
      await image.decode();
      this.images.set(url, image);
      for (const [old, kept] of this.images) {
        if (this.images.size <= MOST_IMAGES) break;
        if (kept === 'coming' || this.inUse.has(old)) continue;
        this.images.delete(old);
      }
      this.decoded++;
    } catch {
      // The picture was given up for a finer one meanwhile, which is on its way.
      this.images.delete(url);
    }
  }

  private needFont(font: string): void {
    if (this.fonts.has(font) || document.fonts.check(font)) return;
    void document.fonts.load(font).then(() => {
      this.fonts.add(font);
      this.decoded++;
    });
  }

  private soon(): void {
    if (this.queue.length && !this.frame && !this.closed)
      this.frame = requestAnimationFrame(() => this.paintSome());
  }

  private paintSome(): void {
    this.frame = 0;
    const { from } = this;
    const until = performance.now() + BUDGET_MS;
    while (from && this.queue.length && performance.now() < until) {
      const kept = this.queue.shift();
      if (!kept) break;
      const { face, canvas, k } = kept;
      paintFace(
        canvas,
        printedFace(from.plan, face, from.errors),
        face.flat,
        k,
        (art) => this.pictureOf(art, from.surveys),
        from.selected,
      );
      kept.version++;
    }
    this.onpainted();
    this.soon();
  }

  private pictureOf(
    { source, index, laid }: ArtItem,
    surveys: Surveys,
  ): { image: HTMLImageElement; size: Size } | undefined {
    const page = surveys[source]?.pages[index];
    const url = this.pictures.urlOf(source, index, !!laid);
    const image = url && this.images.get(url);
    if (!page || !image || image === 'coming') return undefined;
    return { image, size: { width: widthOf(page.boxes.media), height: heightOf(page.boxes.media) } };
  }
}
