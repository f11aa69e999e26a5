import type { Gray } from '../gray';

/** A picture of half the dots each way, each the mean of four; of a single row or column, of two. */
export function halved({ width, height, light }: Gray): Gray {
  const [w, h] = [Math.max(1, width >> 1), Math.max(1, height >> 1)];
  const [right, down] = [width > 1 ? 1 : 0, height > 1 ? width : 0];
  const small = new Uint8Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0, at = 2 * y * width, to = y * w; x < w; x++, at += 2)
      small[to + x] = (light[at]! + light[at + right]! + light[at + down]! + light[at + down + right]!) >> 2;
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
  const [right, down] = [cos / scale, sin / scale];
  for (let v = 0, to = 0; v < h; v++) {
    const [dx, dy] = [part.x - ox, part.y + v / scale - oy];
    let [x, y] = [cx + dx * cos - dy * sin, cy + dx * sin + dy * cos];
    for (let u = 0; u < w; u++, to++, x += right, y += down) {
      if (x < 0 || y < 0 || x >= width - 1 || y >= height - 1) {
        made[to] = ground;
        continue;
      }
      const [fx, fy] = [x | 0, y | 0];
      const at = fy * width + fx;
      const p = ((x - fx) * 64) | 0;
      const q = ((y - fy) * 64) | 0;
      const above = (light[at]! << 6) + (light[at + 1]! - light[at]!) * p;
      const below = (light[at + width]! << 6) + (light[at + width + 1]! - light[at + width]!) * p;
      made[to] = ((above << 6) + (below - above) * q) >> 12;
    }
  }
  return { width: w, height: h, light: made };
}

/** Where there is ink, a byte a dot: what is darker than paper is around it, which is the mean of a square of `reach` dots each way. */
export function inkIn({ width, height, light }: Gray, reach: number): Uint8Array {
  const ink = new Uint8Array(width * height);
  // For each column, the sum of the rows that are near.
  const columns = new Int32Array(width);
  const add = (y: number) => {
    for (let x = 0, at = y * width; x < width; x++, at++) columns[x] = columns[x]! + light[at]!;
  };
  const take = (y: number) => {
    for (let x = 0, at = y * width; x < width; x++, at++) columns[x] = columns[x]! - light[at]!;
  };
  for (let y = 0; y < Math.min(reach, height); y++) add(y);
  for (let y = 0; y < height; y++) {
    if (y + reach < height) add(y + reach);
    if (y - reach - 1 >= 0) take(y - reach - 1);
    const rows = Math.min(height, y + reach + 1) - Math.max(0, y - reach);
    let sum = 0;
    for (let x = 0; x < Math.min(reach, width); x++) sum += columns[x]!;
    const full = rows * (2 * reach + 1);
    for (let x = 0, at = y * width; x < width; x++, at++) {
      if (x + reach < width) sum = (sum + columns[x + reach]!) | 0;
      if (x > reach) sum = (sum - columns[x - reach - 1]!) | 0;
      const inside = x >= reach && x + reach < width;
      const count = inside ? full : rows * (Math.min(width, x + reach + 1) - Math.max(0, x - reach));
      if (100 * light[at]! * count < INK_OF_100 * sum && sum > DARK * count) ink[at] = 1;
    }
  }
  return ink;
}

/** What is darker than this all round is no paper. */
const DARK = 70;
/** Ink is darker than so many hundredths of what is around it; what shows through from behind is lighter. */
const INK_OF_100 = 72;
