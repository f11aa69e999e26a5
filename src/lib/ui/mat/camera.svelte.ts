import type { Box } from '../../core/measure/box';

export type Zoom = 'in' | 'out' | 'fit' | 'whole' | 'real';
/** Fits the whole, or the width alone where the whole is long. */
export type FitTo = 'all' | 'width';

/** What the mat's contents are drawn with: pixels a point, and the part in sight in points, y down. */
export interface View extends Box {
  k: number;
}

/** The rulers at the head and at the left of the mat, in pixels. */
export const RULER = 22;
const MARGIN = 26;
const [SMALLEST, LARGEST] = [0.01, 60];
/** What is fitted is not drawn larger than this: a small thing alone on the mat stays small. */
const LARGEST_FITTED = { width: 1.6, all: 2.2 };
/** Pixels a point where a point on the screen is a seventy-second of an inch; CSS counts 96 px to an inch. */
const REAL = 96 / 72;
const STEP = 1.25;

/** What lies on the mat is so long that it would be much larger by its width alone. */
export const isLong = (whole: number, across: number): boolean => whole < across * 0.72;

const clamp = (k: number): number => Math.min(LARGEST, Math.max(SMALLEST, k));

/** How the mat is looked at: its scale, and where on the screen its corner lies. */
export class Camera {
  /** The mat on the screen, in pixels. */
  width = $state(800);
  height = $state(700);
  k = $state(1);
  ox = $state(RULER + MARGIN);
  oy = $state(RULER + MARGIN);
  /** Moved by hand: what lies on it is no longer kept fitted. */
  touched = $state(false);
  /** Fitted once. */
  ready = $state(false);

  view: View = $derived({
    k: this.k,
    x0: (RULER - this.ox) / this.k,
    y0: (RULER - this.oy) / this.k,
    x1: (this.width - this.ox) / this.k,
    y1: (this.height - this.oy) / this.k,
  });

  /** Within the rulers and some of the mat around, in pixels. */
  private get room(): { w: number; h: number } {
    return { w: this.width - RULER - 2 * MARGIN, h: this.height - RULER - 2 * MARGIN };
  }

  /** The scale at which what lies on the mat fits, in pixels a point. */
  scaleFor({ width, height }: { width: number; height: number }, to: FitTo): number {
    const { w, h } = this.room;
    const across = w / Math.max(1, width);
    const whole = Math.min(across, h / Math.max(1, height));
    return clamp(
      to === 'width' && isLong(whole, across)
        ? Math.min(across, LARGEST_FITTED.width)
        : Math.min(whole, LARGEST_FITTED.all),
    );
  }

  /** Fits what lies on the mat, in points. */
  fit({ width, height }: { width: number; height: number }, to: FitTo): void {
    const { w, h } = this.room;
    this.k = this.scaleFor({ width, height }, to);
    this.ox = RULER + MARGIN + Math.max(0, (w - width * this.k) / 2);
    this.oy = RULER + MARGIN + Math.max(0, Math.min(40, (h - height * this.k) / 2));
    this.touched = false;
    this.ready = true;
  }

  zoom(what: Exclude<Zoom, 'fit' | 'whole'>): void {
    this.zoomBy(what === 'real' ? REAL / this.k : what === 'in' ? STEP : 1 / STEP);
  }

  /** Zooms by a factor about a point of the screen, its middle by default. */
  zoomBy(factor: number, x = this.width / 2, y = this.height / 2): void {
    const next = clamp(this.k * factor);
    this.ox = x - ((x - this.ox) * next) / this.k;
    this.oy = y - ((y - this.oy) * next) / this.k;
    this.k = next;
    this.touched = true;
  }

  /** Brings a box into sight. */
  show(box: Box): void {
    const { x0, y0, x1, y1 } = this.view;
    if (box.x0 < x0 || box.x1 > x1 || box.y0 < y0 || box.y1 > y1) this.centre(box);
  }

  /** Zooms in on a box. */
  lookAt(box: Box): void {
    this.k = clamp(
      Math.min((this.width - RULER) / (box.x1 - box.x0), (this.height - RULER) / (box.y1 - box.y0)),
    );
    this.centre(box);
  }

  private centre(box: Box): void {
    this.ox = (this.width + RULER) / 2 - ((box.x0 + box.x1) / 2) * this.k;
    this.oy = (this.height + RULER) / 2 - ((box.y0 + box.y1) / 2) * this.k;
    this.touched = true;
  }

  /** Moves the mat, in pixels. */
  pan(x: number, y: number): void {
    this.ox += x;
    this.oy += y;
    this.touched = true;
  }

  /** A place on the screen, in points on the mat. */
  toMat(x: number, y: number): { x: number; y: number } {
    return { x: (x - this.ox) / this.k, y: (y - this.oy) / this.k };
  }
}
