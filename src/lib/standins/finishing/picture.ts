import type { Gray } from '../../raster/gray';
import { halved } from '../../raster/scans/picture';

/** A part of a picture in whole dots. */
export interface Dots {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

const WHITE = 255;
/** Lighter than this is paper: white comes out of a renderer as nothing else. */
const PAPER = 250;

/** A part of a picture; what lies outside it is white. */
export function cropped({ width, height, light }: Gray, { x0, y0, x1, y1 }: Dots): Gray {
  const part: Gray = {
    width: x1 - x0,
    height: y1 - y0,
    light: new Uint8Array((x1 - x0) * (y1 - y0)).fill(WHITE),
  };
  const [from, to] = [Math.max(0, x0), Math.min(width, x1)];
  for (let y = Math.max(0, y0); y < Math.min(height, y1); y++)
    part.light.set(light.subarray(y * width + from, y * width + to), (y - y0) * part.width + (from - x0));
  return part;
}

/** Whether nothing is printed in a part. */
export function isWhite({ width, light }: Gray, { x0, y0, x1, y1 }: Dots): boolean {
  for (let y = y0; y < y1; y++) for (let x = x0; x < x1; x++) if (light[y * width + x]! < PAPER) return false;
  return true;
}

/** Dots that differ by more than this are of something else: edges of the same shape, drawn twice, differ less. */
const DIFFERS = 56;

/** How many dots of two pictures of one size differ within a part, and where. */
export const difference = (a: Gray, b: Gray, part: Dots, most = Infinity): { dots: number; where: Dots } =>
  counted(part, (x, y) => Math.abs(a.light[y * a.width + x]! - b.light[y * a.width + x]!) > DIFFERS, most);

/** Parts are looked for in squares of so many dots. */
const SQUARE = 24;

/** The parts in which two pictures of one size differ, a little larger than what differs; nothing if there are more than `most`. */
export function differingParts(a: Gray, b: Gray, { x0, y0, x1, y1 }: Dots, most: number): Dots[] | undefined {
  const parts = new Map<number, Dots>();
  const squares = Math.ceil(a.width / SQUARE);
  for (let y = y0; y < y1; y++)
    for (let x = x0, at = y * a.width + x0; x < x1; x++, at++) {
      if (Math.abs(a.light[at]! - b.light[at]!) <= DIFFERS) continue;
      const square = Math.floor(y / SQUARE) * squares + Math.floor(x / SQUARE);
      const { x0, x1, y0 } = parts.get(square) ?? { x0: x, x1: x + 1, y0: y };
      parts.set(square, { x0: Math.min(x0, x), y0, x1: Math.max(x1, x + 1), y1: y + 1 });
      if (parts.size > most) return undefined;
    }
  return [...parts.values()].map(around);
}
/** Letters lie about as far around their dots. */
const AROUND = 4;
const around = ({ x0, y0, x1, y1 }: Dots): Dots => ({
  x0: x0 - AROUND,
  y0: y0 - AROUND,
  x1: x1 + AROUND,
  y1: y1 + AROUND,
});

/**
 * The same, counted no further than a few more than `most`, but for what lies a dot beside its place: a renderer puts letters on whole dots, so that one may come out a dot further
 * when the same page is drawn again.
 */
export const strays = (a: Gray, b: Gray, part: Dots, most = Infinity): { dots: number; where: Dots } =>
  counted(
    part,
    (x, y) =>
      Math.abs(a.light[y * a.width + x]! - b.light[y * a.width + x]!) > DIFFERS &&
      (isStray(a, b, x, y) || isStray(b, a, x, y)),
    most,
  );

/** Whether a dot of a picture is darker or lighter than all of another one around its place. */
function isStray(a: Gray, { width, height, light }: Gray, x: number, y: number): boolean {
  let [darkest, lightest] = [255, 0];
  for (let v = Math.max(0, y - 1); v <= Math.min(height - 1, y + 1); v++)
    for (let u = Math.max(0, x - 1); u <= Math.min(width - 1, x + 1); u++) {
      const own = light[v * width + u]!;
      if (own < darkest) darkest = own;
      if (own > lightest) lightest = own;
    }
  const own = a.light[y * a.width + x]!;
  return own < darkest - DIFFERS || own > lightest + DIFFERS;
}

function counted(
  { x0, y0, x1, y1 }: Dots,
  isOne: (x: number, y: number) => boolean,
  most = Infinity,
): { dots: number; where: Dots } {
  const where = { x0: x1, y0: y1, x1: x0, y1: y0 };
  let dots = 0;
  for (let y = y0; y < y1 && dots <= most; y++)
    for (let x = x0; x < x1; x++)
      if (isOne(x, y)) {
        dots++;
        where.x0 = Math.min(where.x0, x);
        where.x1 = Math.max(where.x1, x + 1);
        where.y0 = Math.min(where.y0, y);
        where.y1 = Math.max(where.y1, y + 1);
      }
  return { dots, where };
}

/** How much two pictures differ on average where the second lies so far from the first, by every other row; found no further than that it is more than `most`. */
function apart(a: Gray, b: Gray, part: Dots, dx: number, dy: number, most = Infinity): number {
  let [sum, count] = [0, 0];
  const [from, to] = [Math.max(part.x0, -dx), Math.min(part.x1, a.width - dx)];
  const [first, end] = [Math.max(part.y0, -dy), Math.min(part.y1, a.height - dy)];
  const enough = most * Math.max(0, to - from) * Math.ceil(Math.max(0, end - first) / 2);
  for (let y = first; y < end && sum <= enough; y += 2) {
    const [own, other] = [(y + dy) * a.width + dx, y * b.width];
    for (let x = from; x < to; x++) sum += Math.abs(a.light[own + x]! - b.light[other + x]!);
    count += Math.max(0, to - from);
  }
  return count && sum <= enough ? sum / count : Infinity;
}

/** The whole dots by which the first of two pictures is moved, of those tried. */
function nearest(
  a: Gray,
  b: Gray,
  part: Dots,
  about: { x: number; y: number },
  reach: number,
): { x: number; y: number } {
  let best = about;
  let least = apart(a, b, part, about.x, about.y);
  for (let y = about.y - reach; y <= about.y + reach; y++)
    for (let x = about.x - reach; x <= about.x + reach; x++) {
      const own = apart(a, b, part, x, y, least);
      if (own < least) [best, least] = [{ x, y }, own];
    }
  return best;
}

/** Pictures are halved until what is looked for lies within so many dots. */
const WITHIN = 5;

/** How far what a picture shows lies from where another one has it, in dots to the right and down; `reach` is the farthest that is looked for. */
export const shiftOf = (a: Gray, b: Gray, part: Dots, reach: number): { x: number; y: number } =>
  refined(a, b, part, wholeShift(a, b, part, reach));

/** The same in whole dots: looked for in halved pictures first, where it is half as far. */
function wholeShift(a: Gray, b: Gray, part: Dots, reach: number): { x: number; y: number } {
  if (reach <= WITHIN) return nearest(a, b, part, { x: 0, y: 0 }, Math.ceil(reach));
  const half = { x0: part.x0 >> 1, y0: part.y0 >> 1, x1: part.x1 >> 1, y1: part.y1 >> 1 };
  const { x, y } = wholeShift(halved(a), halved(b), half, reach / 2);
  return nearest(a, b, part, { x: 2 * x, y: 2 * y }, 1);
}

/**
 * Refines a shift to parts of a dot: the one at which the squares of what is left are least, by the slopes of the picture (Lucas
 * and Kanade, 1981). In a direction in which nothing changes it stays as it is.
 */
function refined(a: Gray, b: Gray, part: Dots, from: { x: number; y: number }): { x: number; y: number } {
  let { x: dx, y: dy } = from;
  for (let round = 0; round < 4; round++) {
    let [xx, xy, yy, xt, yt] = [0, 0, 0, 0, 0];
    const [fx, fy] = [Math.floor(dx), Math.floor(dy)];
    const [u, v] = [dx - fx, dy - fy];
    for (let y = Math.max(part.y0 + 1, 1 - fy); y < Math.min(part.y1 - 1, a.height - fy - 2); y++)
      for (let x = Math.max(part.x0 + 1, 1 - fx); x < Math.min(part.x1 - 1, a.width - fx - 2); x++) {
        const at = y * b.width + x;
        const gx = (b.light[at + 1]! - b.light[at - 1]!) / 2;
        const gy = (b.light[at + b.width]! - b.light[at - b.width]!) / 2;
        if (!gx && !gy) continue;
        const to = (y + fy) * a.width + x + fx;
        const above = a.light[to]! * (1 - u) + a.light[to + 1]! * u;
        const below = a.light[to + a.width]! * (1 - u) + a.light[to + a.width + 1]! * u;
        const off = above * (1 - v) + below * v - b.light[at]!;
        xx += gx * gx;
        xy += gx * gy;
        yy += gy * gy;
        xt += gx * off;
        yt += gy * off;
      }
    const det = xx * yy - xy * xy;
    // Lines that all run one way tell nothing of a shift along them.
    const isFlat = det < 1e-3 * (xx + yy) ** 2;
    const stepX = isFlat ? (xx > yy ? -xt / (xx || 1) : 0) : -(yy * xt - xy * yt) / det;
    const stepY = isFlat ? (yy > xx ? -yt / (yy || 1) : 0) : -(xx * yt - xy * xt) / det;
    dx += Math.max(-1, Math.min(1, stepX));
    dy += Math.max(-1, Math.min(1, stepY));
    if (Math.abs(stepX) + Math.abs(stepY) < 0.002) break;
  }
  return { x: dx, y: dy };
}

/** How alike two pictures of one size are: 1 where they are the same but for how light they are, 0 where they have nothing in common. */
export function likeness(a: Gray, b: Gray): number {
  const n = a.light.length;
  let [sa, sb] = [0, 0];
  for (let i = 0; i < n; i++) {
    sa += a.light[i]!;
    sb += b.light[i]!;
  }
  const [ma, mb] = [sa / n, sb / n];
  let [ab, aa, bb] = [0, 0, 0];
  for (let i = 0; i < n; i++) {
    const [da, db] = [a.light[i]! - ma, b.light[i]! - mb];
    ab += da * db;
    aa += da * da;
    bb += db * db;
  }
  return aa && bb ? ab / Math.sqrt(aa * bb) : aa === bb ? 1 : 0;
}
