import type { Turn } from '../../core/measure/matrix';
import type { ReadWord } from '../../core/model/readWord';
import type { Gray } from '../gray';
import { foldIn } from './fold';
import { levelled, type Level } from './level';
import { toneOf } from './paper';
import { readPage } from './reader';

/** Words read less surely than this are dirt, as a rule. */
const SURE = 30;

/**
 * Reads all words of a scan: `skew` degrees askew, and `leans` the clockwise turn that sets it upright. Of one that is wider than
 * high each page is read by itself. `gray` has `ppi` dots an inch.
 */
export async function readWords(gray: Gray, ppi: number, skew: number, leans: Turn): Promise<ReadWord[]> {
  const level = levelled(gray, skew - leans, 1, toneOf(gray));
  const { width, height } = level.gray;
  const whole = { x0: 0, y0: 0, x1: width, y1: height };
  const fold = width > height ? Math.round(foldIn(level.gray, whole) ?? width / 2) : width;
  const halves = [
    { from: 0, to: fold },
    { from: fold, to: width },
  ].filter(({ from, to }) => to - from > 1);
  const found: ReadWord[] = [];
  for (const { from, to } of halves) {
    const words = await readPage(columnsOf(level.gray, from, to));
    for (const { text, sure, x0, x1, base, high } of words)
      if (sure >= SURE && text.trim())
        found.push(inPlace(text.trim(), { x0: x0 + from, x1: x1 + from, base, high }, level, gray, ppi));
  }
  return found;
}

function columnsOf({ width, height, light }: Gray, from: number, to: number): Gray {
  const part = new Uint8Array((to - from) * height);
  for (let y = 0; y < height; y++)
    part.set(light.subarray(y * width + from, y * width + to), y * (to - from));
  return { width: to - from, height, light: part };
}

/** A word that lies level, where it lies on the page as seen. */
function inPlace(
  text: string,
  { x0, x1, base, high }: { x0: number; x1: number; base: number; high: number },
  level: Level,
  { height }: Gray,
  ppi: number,
): ReadWord {
  const k = 72 / ppi;
  const at = (x: number, y: number) => {
    const from = level.from(x, y);
    return { x: from.x * k, y: (height - from.y) * k };
  };
  const [start, end] = [at(x0, base), at(x1, base)];
  const width = Math.hypot(end.x - start.x, end.y - start.y) || 1;
  const [cos, sin] = [(end.x - start.x) / width, (end.y - start.y) / width];
  return { text, width, size: Math.max(1, high * k), matrix: [cos, sin, -sin, cos, start.x, start.y] };
}
