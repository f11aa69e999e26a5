import type { Box } from '../../core/measure/box';
import { entryAt } from '../../core/entries';
import type { Gray } from '../gray';

/** How far from the paper's middle a fold is looked for, as a share of its width; and how much darker it is at least. */
const [REACH, DARKER] = [0.06, 0.025];

/**
 * Where paper folds between two pages, in dots from the left of a level picture: the darkest place near its middle, by what is
 * paper in each column; undefined where none is darker.
 */
export function foldIn({ width, light }: Gray, paper: Box): number | undefined {
  const middle = (paper.x0 + paper.x1) / 2;
  const reach = (paper.x1 - paper.x0) * REACH;
  const tones: number[] = [];
  const from = Math.max(0, Math.round(middle - 2 * reach));
  const to = Math.min(width - 1, Math.round(middle + 2 * reach));
  for (let x = from; x <= to; x++) {
    const column: number[] = [];
    for (let y = Math.max(0, Math.ceil(paper.y0) + 8); y < paper.y1 - 8; y += 5)
      column.push(light[y * width + x]!);
    column.sort((a, b) => a - b);
    // Letters are darker than this.
    tones.push(entryAt(column, Math.floor(column.length * 0.7)));
  }
  const smooth = tones.map((_, n) => mean(tones.slice(Math.max(0, n - 4), n + 5)));
  const plain = [...smooth].sort((a, b) => b - a)[Math.floor(smooth.length * 0.1)]!;
  const inner = smooth
    .map((tone, n) => ({ tone, x: from + n }))
    .filter(({ x }) => Math.abs(x - middle) <= reach);
  const least = Math.min(...inner.map(({ tone }) => tone));
  if (!(least < plain * (1 - DARKER))) return undefined;
  // The middle of what is about as dark.
  const dark = inner.filter(({ tone }) => tone - least < (plain - least) * 0.25);
  return mean(dark.map(({ x }) => x)) + 0.5;
}

const mean = (numbers: readonly number[]): number => numbers.reduce((sum, n) => sum + n, 0) / numbers.length;
