import type { Sides } from '../../core/measure/box';
import type { Sheet } from '../../core/sheets/plan';

/** How far cells reach beyond the edges of the sheets they lie on, at most, in points: only on sheets that are too small. */
export function beyondOf(sheets: readonly Sheet[]): Sides {
  const most = { head: 0, foot: 0, left: 0, right: 0 };
  for (const { front, back, size } of sheets)
    for (const { clip } of [...front.cells, ...(back?.cells ?? [])]) {
      most.head = Math.max(most.head, clip.y1 - size.height);
      most.foot = Math.max(most.foot, -clip.y0);
      most.left = Math.max(most.left, -clip.x0);
      most.right = Math.max(most.right, clip.x1 - size.width);
    }
  return most;
}
