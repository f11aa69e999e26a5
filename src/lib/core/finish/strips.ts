import { sizeBox, type Box, type Size } from '../measure/box';
import type { CutOperation } from './operations';
import { entryAt, entryOf, lastOf } from '../entries';

/** A cut where it is made, on the sheet as its front is seen. */
export interface CutLine {
  number: number;
  axis: CutOperation['axis'];
  at: number;
  /** From where to where it goes, along its axis. */
  from: number;
  to: number;
}

/** Follows cuts on a sheet: the papers that they leave, by the names of their strips, and where each cut is made. */
export function followCuts(
  sheet: Size,
  cuts: readonly CutOperation[],
): { papers: Map<string, Box>; lines: CutLine[] } {
  const papers = new Map<string, Box>([['', sizeBox(sheet)]]);
  const lines: CutLine[] = [];
  for (let n = 0; n < cuts.length;) {
    const { strips, axis } = entryAt(cuts, n);
    const run: CutOperation[] = [];
    do run.push(entryAt(cuts, n++));
    while (n < cuts.length && !lastOf(run).rest);
    const [low, high] = axis === 'vertical' ? (['x0', 'x1'] as const) : (['y0', 'y1'] as const);
    const [from, to] = axis === 'vertical' ? (['y0', 'y1'] as const) : (['x0', 'x1'] as const);
    for (const name of strips) {
      let paper = entryOf(papers, name);
      papers.delete(name);
      const kept: Box[] = [];
      for (const { number, at, off, rest } of run) {
        const knife = paper[low] + at;
        lines.push({ number, axis, at: knife, from: paper[from], to: paper[to] });
        if (off === 'piece') kept.push({ ...paper, [high]: knife });
        paper = { ...paper, [low]: knife };
        if (rest === 'piece') kept.push(paper);
      }
      kept.forEach((piece, k) =>
        papers.set(kept.length === 1 ? name : [name, k + 1].filter(Boolean).join('.'), piece),
      );
    }
  }
  return { papers, lines };
}
