import { sizeBox, type Box, type Size } from '../measure/box';
import type { CutOperation } from './operations';
import { entryAt, entryOf, lastOf } from '../entries';

/** What a run of cuts leaves: the papers, each by the name of its strip, on the sheet that they were. */
export function stripsOf(sheet: Size, cuts: readonly CutOperation[]): Map<string, Box> {
  const papers = new Map<string, Box>([['', sizeBox(sheet)]]);
  for (let n = 0; n < cuts.length;) {
    const { strips, axis } = entryAt(cuts, n);
    const run: CutOperation[] = [];
    do run.push(entryAt(cuts, n++));
    while (n < cuts.length && !lastOf(run).rest);
    const [low, high] = axis === 'vertical' ? (['x0', 'x1'] as const) : (['y0', 'y1'] as const);
    for (const name of strips) {
      let paper = entryOf(papers, name);
      papers.delete(name);
      const kept: Box[] = [];
      for (const { at, off, rest } of run) {
        const knife = paper[low] + at;
        if (off === 'piece') kept.push({ ...paper, [high]: knife });
        paper = { ...paper, [low]: knife };
        if (rest === 'piece') kept.push(paper);
      }
      kept.forEach((piece, k) =>
        papers.set(kept.length === 1 ? name : [name, k + 1].filter(Boolean).join('.'), piece),
      );
    }
  }
  return papers;
}
