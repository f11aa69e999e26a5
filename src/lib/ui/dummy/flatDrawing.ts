import { bounds, heightOf, intersect, widthOf, type Box } from '../../core/measure/box';
import { applyToPoint, invert, type Matrix } from '../../core/measure/matrix';
import type { Unit } from '../../core/measure/unit';
import { outlineOf } from '../../core/finish/line/paper';
import { facesInSight, type Placed } from '../../core/finish/states/placed';
import { poseOf } from '../../core/finish/states/pose';
import { gridFor, multiples } from '../mat/grid';
import type { Drawing, Met, SeenFace } from './drawing';
import type { Face } from './facePainter';
import type { PaintedFace } from './faces.svelte';
import type { Going } from './dummyView.svelte';

const MARGIN = 40;
const STRIP = 'rgb(181 69 44 / 0.45)';

/** The dummy as flat drawings: what each operation leaves, seen from above or from below. */
export class FlatDrawing implements Drawing {
  private readonly ctx: CanvasRenderingContext2D;
  private parts: readonly Placed[] = [];
  private order: number[] = [];
  private sight = new Map<number, { above: boolean; below: boolean }>();
  private over = false;
  private zoom = 1;
  private frame = 0;
  private unit: Unit = 'mm';

  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly paint: (face: Face, k: number) => PaintedFace,
    private readonly onrender: () => void,
  ) {
    const ctx = canvas.getContext('2d');
    if (!ctx) throw new Error('no canvas');
    this.ctx = ctx;
  }

  show({ from, to }: Going, t: number): void {
    this.parts = t < 0.5 ? from : to;
    this.order = this.parts
      .map((part, n) => ({ n, from: part.from + (part.waste ? 1e6 : 0) }))
      .sort((a, b) => a.from - b.from)
      .map(({ n }) => n);
    this.sight = facesInSight(this.parts);
    this.invalidate();
  }
  advance(): void {
    // What is drawn flat changes at once.
  }

  get faces(): Face[] {
    return this.shown.map(({ face }) => face);
  }

  /** Faces that are seen from this side, from the lowest to the highest, with the parts that they are on. */
  private get shown(): { part: Placed; face: Face }[] {
    const order = this.over ? [...this.order].reverse() : this.order;
    return order.flatMap((n) => {
      const part = this.parts[n];
      const seen = this.sight.get(n);
      if (!part || !(this.over ? seen?.below : seen?.above)) return [];
      const up = ((part.up === 'front') !== this.over) !== isUpsideDown(part) ? 'front' : 'back';
      return [{ part, face: { sheet: part.sheet, face: up, flat: part.flat } }];
    });
  }

  repainted(): void {
    this.invalidate();
  }
  resize(width: number, height: number): void {
    const ratio = Math.min(2, globalThis.devicePixelRatio || 1);
    this.canvas.width = Math.round(width * ratio);
    this.canvas.height = Math.round(height * ratio);
    this.invalidate();
  }
  bringBack(over: boolean): void {
    this.over = over;
    this.zoom = 1;
    this.invalidate();
  }
  zoomBy(factor: number): void {
    this.zoom = Math.min(8, Math.max(0.2, this.zoom * factor));
    this.invalidate();
  }
  turnBy(): void {
    // It lies flat.
  }
  grids(unit: Unit): void {
    this.unit = unit;
    this.invalidate();
  }

  private get extent(): Box {
    const all = this.parts.filter(({ tilt }) => !tilt);
    return all.length ? bounds(all.map(outlineOf)) : { x0: 0, y0: 0, x1: 1, y1: 1 };
  }
  get k(): number {
    const { clientWidth, clientHeight } = this.canvas;
    const { extent } = this;
    const fit = Math.min(
      (clientWidth - 2 * MARGIN) / widthOf(extent),
      (clientHeight - 2 * MARGIN) / heightOf(extent),
    );
    return Math.max(0.01, fit) * this.zoom;
  }
  /** From the mat to the screen, y down. */
  private get way(): Matrix {
    const { k, extent } = this;
    const [x, y] = [(extent.x0 + extent.x1) / 2, (extent.y0 + extent.y1) / 2];
    const across = this.over ? -k : k;
    return [across, 0, 0, -k, this.canvas.clientWidth / 2 - across * x, this.canvas.clientHeight / 2 + k * y];
  }
  toScreen(x: number, y: number): { x: number; y: number } {
    return applyToPoint(this.way, x, y);
  }

  seen(): SeenFace[] {
    return this.shown.map(({ part, face }) => {
      const { x0, x1, y0, y1 } = part.flat;
      const at = (x: number, y: number) => {
        const on = applyToPoint(flatMatrix(part), x, y);
        return this.toScreen(on.x, on.y);
      };
      return { ...face, turnedHere: true, corners: [at(x0, y0), at(x1, y0), at(x1, y1), at(x0, y1)] };
    });
  }

  meet(clientX: number, clientY: number): Met | undefined {
    const { left, top } = this.canvas.getBoundingClientRect();
    const at = applyToPoint(invert(this.way), clientX - left, clientY - top);
    for (const { part, face } of this.shown.reverse()) {
      const matrix = flatMatrix(part);
      if (Math.abs(matrix[0] * matrix[3] - matrix[1] * matrix[2]) < 0.5) continue;
      const { x, y } = applyToPoint(invert(matrix), at.x, at.y);
      const { flat } = part;
      if (x >= flat.x0 && x <= flat.x1 && y >= flat.y0 && y <= flat.y1)
        return { sheet: face.sheet, face: face.face, x, y };
    }
    return undefined;
  }

  close(): void {
    cancelAnimationFrame(this.frame);
  }

  private invalidate(): void {
    this.frame ||= requestAnimationFrame(() => {
      this.frame = 0;
      this.draw();
      this.onrender();
    });
  }

  private draw(): void {
    const { ctx, canvas, k } = this;
    const ratio = canvas.width / Math.max(1, canvas.clientWidth);
    ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
    const color = (name: string) => getComputedStyle(canvas).getPropertyValue(name);
    ctx.fillStyle = color('--mat');
    ctx.fillRect(0, 0, canvas.clientWidth, canvas.clientHeight);
    this.drawGrid(color('--mat-fine'));
    ctx.transform(...this.way);
    for (const { part, face } of this.shown) {
      ctx.save();
      ctx.transform(...flatMatrix(part));
      const { flat } = part;
      ctx.transform(1, 0, 0, -1, flat.x0, flat.y1);
      ctx.drawImage(this.paint(face, k).canvas, 0, 0, widthOf(flat), heightOf(flat));
      ctx.strokeStyle = '#0c1a17';
      ctx.lineWidth = 1 / k;
      ctx.strokeRect(0, 0, widthOf(flat), heightOf(flat));
      ctx.restore();
    }
    ctx.fillStyle = STRIP;
    const whole = this.extent;
    for (const part of this.parts)
      if (part.waste) {
        const { x0, y0, x1, y1 } = intersect(whole, outlineOf(part));
        ctx.fillRect(x0, y0, x1 - x0, y1 - y0);
      }
  }

  private drawGrid(color: string): void {
    const { ctx, canvas, k, way } = this;
    const { heavy } = gridFor(this.unit, k);
    const back = invert(way);
    const [a, b] = [applyToPoint(back, 0, 0), applyToPoint(back, canvas.clientWidth, canvas.clientHeight)];
    ctx.strokeStyle = color;
    ctx.lineWidth = 1;
    ctx.beginPath();
    for (const x of multiples(heavy, Math.min(a.x, b.x), Math.max(a.x, b.x))) {
      const at = Math.round(this.toScreen(x, 0).x) + 0.5;
      ctx.moveTo(at, 0);
      ctx.lineTo(at, canvas.clientHeight);
    }
    for (const y of multiples(heavy, Math.min(a.y, b.y), Math.max(a.y, b.y))) {
      const at = Math.round(this.toScreen(0, y).y) + 0.5;
      ctx.moveTo(0, at);
      ctx.lineTo(canvas.clientWidth, at);
    }
    ctx.stroke();
  }
}

/** How a part lies, seen from above: a part that stands is a line. */
function flatMatrix(part: Placed): Matrix {
  const [x, y] = poseOf(part);
  return [x[0], y[0], x[1], y[1], x[3], y[3]];
}

/** A part that was folded by its tilt alone shows its other face. */
const isUpsideDown = ({ tilt }: Placed): boolean => !!tilt && Math.cos((tilt.degrees * Math.PI) / 180) < -0.5;
