import type { Box, Size } from '../measure/box';
import { mm, toCsv } from './map';
import type { Sheet, SheetPlan } from './plan';

/** One cut of the guillotine, right through the piece of paper that lies under the knife. Points on the front of the sheet. */
export interface Cut {
  /** In the order in which they are made, from 1. */
  number: number;
  axis: 'vertical' | 'horizontal';
  at: number;
  /** The piece of paper that is cut, from one edge to the other. */
  paper: Box;
}

/** Pieces that no through-cuts can part. */
export class CutError extends Error {
  constructor(readonly boxes: readonly Box[]) {
    super('no through-cut');
  }
}

const SAME = 0.01;
type Span = [from: number, to: number];

/** The cuts that part pieces on a sheet and trim them, widest strips first. Throws CutError where no cut goes right through. */
export function cutsOf(boxes: readonly Box[], sheet: Size): Cut[] {
  const cuts: Omit<Cut, 'number'>[] = [];
  part({ x0: 0, y0: 0, x1: sheet.width, y1: sheet.height }, boxes);
  return cuts.map((cut, n) => ({ number: n + 1, ...cut }));

  function part(paper: Box, within: readonly Box[]): void {
    if (!within.length) return;
    const up = strips(within.map((box): Span => [box.y0, box.y1]));
    const across = strips(within.map((box): Span => [box.x0, box.x1]));
    const one = within.length === 1;
    if (!one && up.length === 1 && across.length === 1) throw new CutError(within);
    // Along the side that parts it into more strips; a piece by itself is trimmed at all four sides.
    const axis = up.length >= across.length && (one || up.length > 1) ? 'horizontal' : 'vertical';
    slice(paper, within, axis, axis === 'horizontal' ? up : across);
  }

  function slice(paper: Box, within: readonly Box[], axis: Cut['axis'], spans: readonly Span[]): void {
    const [low, high] = axis === 'horizontal' ? (['y0', 'y1'] as const) : (['x0', 'x1'] as const);
    let left = paper;
    const parts: { paper: Box; boxes: Box[] }[] = [];
    const cut = (at: number) => {
      if (at > left[low] + SAME && at < left[high] - SAME) {
        cuts.push({ axis, at, paper: left });
        left = { ...left, [low]: at };
      }
    };
    for (const [from, to] of spans) {
      cut(from);
      const strip = { ...left, [high]: Math.min(left[high], to) };
      cut(to);
      parts.push({
        paper: strip,
        boxes: within.filter((box) => box[low] >= from - SAME && box[high] <= to + SAME),
      });
    }
    for (const { paper: strip, boxes: held } of parts) finish(strip, held, axis);
  }

  /** A strip that was cut on one axis goes under the knife the other way. */
  function finish(paper: Box, held: readonly Box[], done: Cut['axis']): void {
    const [only] = held;
    if (held.length === 1 && only) {
      const other = done === 'horizontal' ? 'vertical' : 'horizontal';
      const [low, high] = other === 'horizontal' ? (['y0', 'y1'] as const) : (['x0', 'x1'] as const);
      if (only[low] > paper[low] + SAME || only[high] < paper[high] - SAME)
        slice(paper, held, other, [[only[low], only[high]]]);
      return;
    }
    const axis = done === 'horizontal' ? 'vertical' : 'horizontal';
    const spans = strips(
      held.map((box): Span => (axis === 'horizontal' ? [box.y0, box.y1] : [box.x0, box.x1])),
    );
    if (spans.length > 1) slice(paper, held, axis, spans);
    else part(paper, held);
  }
}

/** Lengths that no line between them touches, each made of those that overlap; edges that touch may be parted. */
function strips(spans: readonly Span[]): Span[] {
  const sorted = [...spans].sort((a, b) => a[0] - b[0]);
  const merged: Span[] = [];
  for (const [from, to] of sorted) {
    const last = merged.at(-1);
    if (last && from < last[1] - SAME) last[1] = Math.max(last[1], to);
    else merged.push([from, to]);
  }
  return merged;
}

/** The cut list of a sheet, from its trims as the front is seen; undefined where no through-cuts part its pieces. */
export function cutList({ front, size }: Sheet): Cut[] | undefined {
  try {
    return cutsOf(
      front.cells.map(({ trim }) => trim),
      size,
    );
  } catch (error) {
    if (error instanceof CutError) return undefined;
    throw error;
  }
}

/** Where a cut is made: how far from the left of the paper under the knife, or from its foot. */
export const cutAt = ({ axis, at, paper }: Cut): number => at - (axis === 'vertical' ? paper.x0 : paper.y0);

/** The cut lists of all sheets that differ, as a table in millimetres: each cut measured from the left or the foot of the paper under the knife. */
export function cutsCsv({ sheets }: SheetPlan): string {
  const known = new Set<string>();
  const rows = sheets.flatMap((sheet, n) => {
    const key = JSON.stringify([sheet.size, sheet.front.cells.map(({ trim }) => trim)]);
    if (known.has(key)) return [];
    known.add(key);
    return (cutList(sheet) ?? []).map((cut) => ({
      sheet: n + 1,
      cut: cut.number,
      cuts: cut.axis === 'vertical' ? 'up' : 'across',
      at: mm(cutAt(cut)),
      from: cut.axis === 'vertical' ? 'left' : 'foot',
      width: mm(cut.paper.x1 - cut.paper.x0),
      height: mm(cut.paper.y1 - cut.paper.y0),
    }));
  });
  return toCsv(rows, ['sheet', 'cut', 'cuts', 'at', 'from', 'width', 'height']);
}
