import type { Box, Size } from '../measure/box';
import { alikeKey } from './alike';
import { mm, toCsv } from '../sheets/map';
import type { SheetPlan } from '../sheets/plan';
import { firstOf, lastOf } from '../entries';

/** One cut of the guillotine, right through the piece of paper that lies under the knife. Points on the front of the sheet. */
export interface Cut {
  /** In the order in which they are made, from 1. */
  number: number;
  axis: 'vertical' | 'horizontal';
  at: number;
  /** The piece of paper that is cut, from one edge to the other. */
  paper: Box;
  /** Which strip it is cut from: empty for the sheet, `3` for its third strip from the left or the foot, `3.2` for the second of that. */
  strip: string;
  /** What comes off before the knife, at the left or the foot; and where it is the last of a run of cuts, what stays behind it. */
  off: CutOff;
  rest?: CutOff;
}
export type CutOff = 'waste' | 'piece';

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
  part({ x0: 0, y0: 0, x1: sheet.width, y1: sheet.height }, boxes, '');
  return cuts.map((cut, n) => ({ number: n + 1, ...cut }));

  function part(paper: Box, within: readonly Box[], name: string): void {
    if (!within.length) return;
    const up = strips(within.map((box): Span => [box.y0, box.y1]));
    const across = strips(within.map((box): Span => [box.x0, box.x1]));
    const one = within.length === 1;
    if (!one && up.length === 1 && across.length === 1) throw new CutError(within);
    // Along the side that parts it into more strips; a piece by itself is trimmed at all four sides.
    const axis = up.length >= across.length && (one || up.length > 1) ? 'horizontal' : 'vertical';
    slice(paper, within, axis, axis === 'horizontal' ? up : across, name);
  }

  function slice(
    paper: Box,
    within: readonly Box[],
    axis: Cut['axis'],
    spans: readonly Span[],
    name: string,
  ): void {
    const [low, high] = axis === 'horizontal' ? (['y0', 'y1'] as const) : (['x0', 'x1'] as const);
    let left = paper;
    const parts: { paper: Box; boxes: Box[] }[] = [];
    const before = cuts.length;
    const cut = (at: number, off: CutOff) => {
      if (at > left[low] + SAME && at < left[high] - SAME) {
        cuts.push({ axis, at, paper: left, strip: name, off });
        left = { ...left, [low]: at };
      }
    };
    for (const [from, to] of spans) {
      cut(from, 'waste');
      const strip = { ...left, [high]: Math.min(left[high], to) };
      cut(to, 'piece');
      parts.push({
        paper: strip,
        boxes: within.filter((box) => box[low] >= from - SAME && box[high] <= to + SAME),
      });
    }
    if (cuts.length > before) lastOf(cuts).rest = lastOf(spans)[1] < paper[high] - SAME ? 'waste' : 'piece';
    parts.forEach(({ paper: strip, boxes: held }, n) =>
      finish(strip, held, axis, parts.length > 1 ? [name, n + 1].filter(Boolean).join('.') : name),
    );
  }

  /** A strip that was cut on one axis goes under the knife the other way. */
  function finish(paper: Box, held: readonly Box[], done: Cut['axis'], name: string): void {
    const [only] = held;
    if (held.length === 1 && only) {
      const other = done === 'horizontal' ? 'vertical' : 'horizontal';
      const [low, high] = other === 'horizontal' ? (['y0', 'y1'] as const) : (['x0', 'x1'] as const);
      if (only[low] > paper[low] + SAME || only[high] < paper[high] - SAME)
        slice(paper, held, other, [[only[low], only[high]]], name);
      return;
    }
    const axis = done === 'horizontal' ? 'vertical' : 'horizontal';
    const spans = strips(
      held.map((box): Span => (axis === 'horizontal' ? [box.y0, box.y1] : [box.x0, box.x1])),
    );
    if (spans.length > 1) slice(paper, held, axis, spans, name);
    else part(paper, held, name);
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

/** Cuts that are made alike on several strips: these go under the knife one on another, or one after another. */
export interface CutOperation extends Pick<Cut, 'number' | 'axis' | 'off' | 'rest'> {
  /** From the left of the paper under the knife, or from its foot, in points. */
  at: number;
  paper: Size;
  /** The strips (see `Cut`) that are cut so; one that is empty is the sheet. */
  strips: readonly string[];
}

/** The cuts of a sheet, those of strips that are cut alike once. */
export function cutOperations(cuts: readonly Cut[]): CutOperation[] {
  const strips = new Map<string, Cut[]>();
  for (const cut of cuts) strips.set(cut.strip, [...(strips.get(cut.strip) ?? []), cut]);
  const alike = new Map<string, { names: string[]; cuts: readonly Cut[] }>();
  for (const [name, own] of strips) {
    const key = alikeKey(own.map((cut) => [cut.axis, cut.off, cut.rest, cutAt(cut), ...lengths(cut)]));
    const known = alike.get(key) ?? { names: [], cuts: own };
    known.names.push(name);
    alike.set(key, known);
  }
  return [...alike.values()]
    .flatMap(({ names, cuts: own }) =>
      own.map((cut) => {
        const [width, height] = lengths(cut);
        const { axis, off, rest } = cut;
        return {
          axis,
          off,
          at: cutAt(cut),
          paper: { width, height },
          strips: names,
          ...(rest ? { rest } : {}),
        };
      }),
    )
    .map((cut, n) => ({ number: n + 1, ...cut }));
}

/** The cut list of a sheet of a plan (from 0), from the pieces on its front; undefined where no through-cuts part them. */
export function cutList(plan: Pick<SheetPlan, 'piecesOn' | 'sheetSize'>, index: number): Cut[] | undefined {
  try {
    return cutsOf(plan.piecesOn(index), plan.sheetSize(index));
  } catch (error) {
    if (error instanceof CutError) return undefined;
    throw error;
  }
}

const lengths = ({ paper }: Cut): [width: number, height: number] => [
  paper.x1 - paper.x0,
  paper.y1 - paper.y0,
];
/** Where a cut is made: how far from the left of the paper under the knife, or from its foot. */
const cutAt = ({ axis, at, paper }: Cut): number => at - (axis === 'vertical' ? paper.x0 : paper.y0);

/** Sheets that are cut alike: their numbers from 1, and the cuts; undefined where no through-cuts part their pieces. */
export function cutsOfPlan(plan: SheetPlan): { sheets: number[]; cuts: CutOperation[] | undefined }[] {
  const known = new Map<string, { sheets: number[]; cuts: CutOperation[] | undefined }>();
  for (let index = 0; index < plan.sheetCount; index++) {
    const key = alikeKey([plan.sheetSize(index), plan.piecesOn(index)]);
    const alike = known.get(key);
    if (alike) {
      alike.sheets.push(index + 1);
      continue;
    }
    const cuts = cutList(plan, index);
    known.set(key, { sheets: [index + 1], cuts: cuts && cutOperations(cuts) });
  }
  return [...known.values()];
}

/** The cut lists of all sheets that differ, as a table in millimetres: each cut measured from the left or the foot of the paper under the knife. */
export function cutsCsv(plan: SheetPlan): string {
  const rows = cutsOfPlan(plan).flatMap(({ sheets, cuts }) =>
    (cuts ?? []).map(({ number, axis, at, paper, strips, off, rest }) => ({
      sheet: firstOf(sheets),
      sheets: sheets.length,
      cut: number,
      strips: strips.every((name) => !name) ? 'sheet' : strips.join(' '),
      times: strips.length,
      cuts: axis === 'vertical' ? 'up' : 'across',
      at: mm(at),
      from: axis === 'vertical' ? 'left' : 'foot',
      width: mm(paper.width),
      height: mm(paper.height),
      off,
      rest: rest ?? '',
    })),
  );
  return toCsv(rows, [
    'sheet',
    'sheets',
    'cut',
    'strips',
    'times',
    'cuts',
    'at',
    'from',
    'width',
    'height',
    'off',
    'rest',
  ]);
}
