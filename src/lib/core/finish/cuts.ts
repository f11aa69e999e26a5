import type { Box, Size } from '../measure/box';
import { alikeKey } from './alike';
import { mm, toCsv } from '../sheets/map';
import type { SheetPlan } from '../sheets/plan';
import type { CutOperation } from './operations';
import { firstOf, lastOf } from '../entries';
import { TOLERANCES } from '../measure/tolerances';

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
type Span = [from: number, to: number];

/** The cuts that part pieces on a sheet and trim them, widest strips first. Throws CutError if no cut goes right through. */
export function cutsOf(boxes: readonly Box[], sheet: Size): Cut[] {
  const guillotine = new Guillotine();
  guillotine.part({ paper: { x0: 0, y0: 0, x1: sheet.width, y1: sheet.height }, boxes, name: '' });
  return guillotine.cuts.map((cut, n) => ({ number: n + 1, ...cut }));
}

/** Paper under the knife: the pieces on it, and its name. */
interface Strip {
  paper: Box;
  boxes: readonly Box[];
  name: string;
}
type Axis = Cut['axis'];
const OTHER = { horizontal: 'vertical', vertical: 'horizontal' } as const;
/** The lower and the upper edge of a box across the axis. */
const EDGES = { horizontal: ['y0', 'y1'], vertical: ['x0', 'x1'] } as const;
const spanOf = (box: Box, axis: Axis): Span => [box[EDGES[axis][0]], box[EDGES[axis][1]]];

class Guillotine {
  readonly cuts: Omit<Cut, 'number'>[] = [];

  /** Parts what lies on a piece of paper, along the side that parts it into more strips; a piece by itself is trimmed at all four sides. */
  part(strip: Strip): void {
    const { boxes } = strip;
    if (!boxes.length) return;
    const spans = {
      horizontal: stretches(boxes.map((box) => spanOf(box, 'horizontal'))),
      vertical: stretches(boxes.map((box) => spanOf(box, 'vertical'))),
    };
    const [up, across] = [spans.horizontal.length, spans.vertical.length];
    const isOne = boxes.length === 1;
    if (!isOne && up === 1 && across === 1) throw new CutError(boxes);
    const axis = up >= across && (isOne || up > 1) ? 'horizontal' : 'vertical';
    this.slice(strip, axis, spans[axis]);
  }

  /** Cuts one strip off after the other; each then goes under the knife the other way. */
  private slice({ paper, boxes, name }: Strip, axis: Axis, spans: readonly Span[]): void {
    const [low, high] = EDGES[axis];
    let left = paper;
    const before = this.cuts.length;
    const cut = (at: number, off: CutOff) => {
      if (at <= left[low] + TOLERANCES.place || at >= left[high] - TOLERANCES.place) return;
      this.cuts.push({ axis, at, paper: left, strip: name, off });
      left = { ...left, [low]: at };
    };
    const parts = spans.map(([from, to], n): Strip => {
      cut(from, 'waste');
      const strip = { ...left, [high]: Math.min(left[high], to) };
      cut(to, 'piece');
      return {
        paper: strip,
        boxes: boxes.filter(
          (box) => box[low] >= from - TOLERANCES.place && box[high] <= to + TOLERANCES.place,
        ),
        name: spans.length > 1 ? [name, n + 1].filter(Boolean).join('.') : name,
      };
    });
    if (this.cuts.length > before)
      lastOf(this.cuts).rest = lastOf(spans)[1] < paper[high] - TOLERANCES.place ? 'waste' : 'piece';
    for (const part of parts) this.finish(part, OTHER[axis]);
  }

  /** A strip that was cut on one axis goes under the knife on the other. */
  private finish(strip: Strip, axis: Axis): void {
    const { paper, boxes } = strip;
    const spans = stretches(boxes.map((box) => spanOf(box, axis)));
    const [only] = spans;
    if (boxes.length === 1 && only) {
      const [low, high] = EDGES[axis];
      if (only[0] > paper[low] + TOLERANCES.place || only[1] < paper[high] - TOLERANCES.place)
        this.slice(strip, axis, spans);
    } else if (spans.length > 1) this.slice(strip, axis, spans);
    else this.part(strip);
  }
}

/** Lengths that no line between them touches, each made of those that overlap; edges that touch may be parted. */
function stretches(spans: readonly Span[]): Span[] {
  const sorted = [...spans].sort((a, b) => a[0] - b[0]);
  const merged: Span[] = [];
  for (const [from, to] of sorted) {
    const last = merged.at(-1);
    if (last && from < last[1] - TOLERANCES.place) last[1] = Math.max(last[1], to);
    else merged.push([from, to]);
  }
  return merged;
}

/** How many cuts deep a strip lies in its sheet, by its name. */
const depthOf = (strip: string): number => (strip ? strip.split('.').length : 0);

/** The cuts of a sheet, those of strips that are cut alike once; whole strips before what is cut out of them. */
export function cutOperations(cuts: readonly Cut[]): CutOperation[] {
  const strips = new Map<string, Cut[]>();
  for (const cut of cuts) strips.set(cut.strip, [...(strips.get(cut.strip) ?? []), cut]);
  const alike = new Map<string, { names: string[]; cuts: readonly Cut[] }>();
  for (const [name, own] of strips) {
    const key = alikeKey([
      depthOf(name),
      ...own.map((cut) => [cut.axis, cut.off, cut.rest, cutAt(cut), ...lengths(cut)]),
    ]);
    const known = alike.get(key) ?? { names: [], cuts: own };
    known.names.push(name);
    alike.set(key, known);
  }
  return [...alike.values()]
    .sort((a, b) => depthOf(firstOf(a.names)) - depthOf(firstOf(b.names)))
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

/** The cut list of a sheet of a plan (from 0), from the pieces on its front; undefined if no through-cuts part them. */
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

/** Sheets that are cut alike: their numbers from 1, and the cuts; undefined if no through-cuts part their pieces. */
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
