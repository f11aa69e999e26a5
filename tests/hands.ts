import type { CutOperation, FoldOperation } from '../src/lib/core/finish/operations';
import type { Box, Size } from '../src/lib/core/measure/box';

/**
 * What an operator does with printed sheets, told by the finishing operations alone: it knows nothing of where a plan put a
 * page, and shares no code with the folding of the product.
 */

/** Something printed that is recognised: where, on which face, and how its head is turned clockwise from upright, as the front lies. */
export interface Print {
  text: string;
  face: 'front' | 'back';
  x: number;
  y: number;
  head: number;
}

/** A turn seen in a mirror that stands along an axis. */
const mirrored = (head: number, axis: 'vertical' | 'horizontal'): number =>
  ((axis === 'vertical' ? 360 : 540) - head) % 360;

/** What was printed on a sheet's back, seen as the sheet is turned over about an axis, where it lies as the front is seen. */
export function throughPaper(
  prints: readonly Print[],
  sheet: Size,
  axis: 'vertical' | 'horizontal',
): Print[] {
  return prints.map((print): Print => {
    const { x, y, head } = print;
    return axis === 'vertical'
      ? { ...print, face: 'back', x: sheet.width - x, head: mirrored(head, axis) }
      : { ...print, face: 'back', y: sheet.height - y, head: mirrored(head, axis) };
  });
}

/** Cuts a sheet by its operations: the pieces that come out, each with what is printed on it, from its lower left corner. */
export function cut(sheet: Size, prints: readonly Print[], operations: readonly CutOperation[]) {
  const papers = new Map<string, Box>([['', { x0: 0, y0: 0, x1: sheet.width, y1: sheet.height }]]);
  for (let n = 0; n < operations.length;) {
    const { strips, axis } = operations[n]!;
    const run = [];
    do run.push(operations[n++]!);
    while (!run.at(-1)!.rest);
    const [low, high] = axis === 'vertical' ? (['x0', 'x1'] as const) : (['y0', 'y1'] as const);
    for (const name of strips) {
      let paper = papers.get(name)!;
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
  return [...papers.values()].map(({ x0, y0, x1, y1 }) => ({
    size: { width: x1 - x0, height: y1 - y0 },
    prints: prints
      .filter(({ x, y }) => x > x0 && x < x1 && y > y0 && y < y1)
      .map((print) => ({ ...print, x: print.x - x0, y: print.y - y0 })),
  }));
}

/** What is printed on both faces of a leaf lies this near to each other, in points: words are boxed a little otherwise when turned. */
const NEAR = 20;

/** One layer of a piece: what is on its two faces, the upper first, and where it lies. */
interface Leaf {
  x: number;
  y: number;
  up: Print | undefined;
  down: Print | undefined;
}

/** Folds a piece by its operations; from the top layer to the bottom, the faces that look up and down, with how their heads are turned. */
export function fold(
  prints: readonly Print[],
  places: readonly { x: number; y: number }[],
  operations: readonly FoldOperation[],
): { pile: Pick<Leaf, 'up' | 'down'>[]; middle: number } {
  let pile = places.map(({ x, y }): Leaf => {
    const at = (face: Print['face']) =>
      prints.find((print) => print.face === face && Math.hypot(print.x - x, print.y - y) < NEAR);
    return { x, y, up: at('front'), down: at('back') };
  });
  let corner = { x: 0, y: 0 };
  /** How many layers lie before the place where the last fold opens. */
  let middle = 0;
  for (const { axis, at, moves, goes, piece } of operations) {
    const line = axis === 'vertical' ? corner.x + at : corner.y + at;
    const isMoved = (leaf: Leaf) =>
      moves === 'left' || moves === 'foot'
        ? leaf[axis === 'vertical' ? 'x' : 'y'] < line
        : leaf[axis === 'vertical' ? 'x' : 'y'] > line;
    const moved = pile
      .filter(isMoved)
      .reverse()
      .map((leaf): Leaf => {
        const seen = (print: Print | undefined) => print && { ...print, head: mirrored(print.head, axis) };
        const to = axis === 'vertical' ? { x: 2 * line - leaf.x } : { y: 2 * line - leaf.y };
        return { ...leaf, ...to, up: seen(leaf.down), down: seen(leaf.up) };
      });
    const rest = pile.filter((leaf) => !isMoved(leaf));
    middle = goes === 'over' ? moved.length : rest.length;
    pile = goes === 'over' ? [...moved, ...rest] : [...rest, ...moved];
    // The piece now begins at the fold, or where the part that came over it ends.
    const key = axis === 'vertical' ? 'x' : 'y';
    const end = corner[key] + (axis === 'vertical' ? piece.width : piece.height);
    const low = moves === 'left' || moves === 'foot' ? line : Math.min(corner[key], 2 * line - end);
    corner = { ...corner, [key]: low };
  }
  return { pile, middle };
}
