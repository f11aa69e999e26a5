import type { Gray } from '../pdfium';

/** A picture of half the dots each way, each the mean of four. */
export function halved({ width, height, light }: Gray): Gray {
  const [w, h] = [width >> 1, height >> 1];
  const small = new Uint8Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0, at = 2 * y * width, to = y * w; x < w; x++, at += 2)
      small[to + x] = (light[at]! + light[at + 1]! + light[at + width]! + light[at + width + 1]!) >> 2;
  return { width: w, height: h, light: small };
}

/**
 * A part of a picture, turned back: `angle` in degrees is how far clockwise what is to stand upright lies in it, about its
 * middle. `x`, `y`, `width` and `height` are in dots of the picture once it is turned back, with the same middle; `scale` dots
 * are made of each. What lies outside is `ground`.
 */
export function turnedBack(
  { width, height, light }: Gray,
  angle: number,
  part: { x: number; y: number; width: number; height: number },
  scale = 1,
  ground = 255,
): Gray {
  const [w, h] = [Math.max(1, Math.round(part.width * scale)), Math.max(1, Math.round(part.height * scale))];
  const made = new Uint8Array(w * h);
  const turn = (angle * Math.PI) / 180;
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const [cx, cy] = [(width - 1) / 2, (height - 1) / 2];
  const quarter = Math.abs(Math.round(angle / 90)) % 2 === 1;
  const [ox, oy] = quarter ? [cy, cx] : [cx, cy];
  for (let v = 0; v < h; v++)
    for (let u = 0; u < w; u++) {
      const [dx, dy] = [part.x + u / scale - ox, part.y + v / scale - oy];
      const [x, y] = [cx + dx * cos - dy * sin, cy + dx * sin + dy * cos];
      const [fx, fy] = [Math.floor(x), Math.floor(y)];
      if (fx < 0 || fy < 0 || fx >= width - 1 || fy >= height - 1) {
        made[v * w + u] = ground;
        continue;
      }
      const [p, q, at] = [x - fx, y - fy, fy * width + fx];
      made[v * w + u] =
        (light[at]! * (1 - p) + light[at + 1]! * p) * (1 - q) +
        (light[at + width]! * (1 - p) + light[at + width + 1]! * p) * q;
    }
  return { width: w, height: h, light: made };
}

/** How light the paper is around each dot, by the mean of a square of `reach` dots each way of what is no ink. */
export function inkIn({ width, height, light }: Gray, reach: number): Uint8Array {
  // Sums of all dots above and to the left.
  const sums = new Float64Array((width + 1) * (height + 1));
  for (let y = 0; y < height; y++) {
    let row = 0;
    for (let x = 0; x < width; x++) {
      row += light[y * width + x]!;
      sums[(y + 1) * (width + 1) + x + 1] = sums[y * (width + 1) + x + 1]! + row;
    }
  }
  const ink = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) {
    const [y0, y1] = [Math.max(0, y - reach), Math.min(height, y + reach + 1)];
    for (let x = 0; x < width; x++) {
      const [x0, x1] = [Math.max(0, x - reach), Math.min(width, x + reach + 1)];
      const sum =
        sums[y1 * (width + 1) + x1]! -
        sums[y0 * (width + 1) + x1]! -
        sums[y1 * (width + 1) + x0]! +
        sums[y0 * (width + 1) + x0]!;
      const mean = sum / ((x1 - x0) * (y1 - y0));
      if (mean > DARK && light[y * width + x]! < mean * INK) ink[y * width + x] = 1;
    }
  }
  return ink;
}

/** What is darker than this all round is no paper. */
const DARK = 70;
/** Ink is darker than this share of what is around it; what shows through from behind is lighter. */
const INK = 0.72;
