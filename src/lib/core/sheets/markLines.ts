import { bounds, contains, grow, type Box, type Sides, type Size } from '../measure/box';
import { applyToPoint, type Matrix } from '../measure/matrix';
import type { PlacedForme, PlacedSlot } from './forme';
import { askedFor, type MarkSettings } from './marks';
import { foldLines } from './marks/edges';
import type { LineContext, MarkSizes } from './marks/markKind';
import { MARK_LENGTH, MARK_OFFSET } from './marks/markSize';
import type { SheetLine } from './plan';
import { TOLERANCES } from '../measure/tolerances';

/** What marks keep clear of, and where they may be. */
export interface MarkRoom {
  /** The widest bleed of the whole plan, so that sheets alike have their marks in the same places. */
  bleed: Sides;
  /** The part of the sheet that is printed on. */
  printed: Box;
  settings: MarkSettings;
}

/** How long trim marks are. */
export const lengthOf = ({ length = MARK_LENGTH }: MarkSizes): number => length;
/** How far a mark begins from the trim at each side. */
export const beyond = ({
  bleed,
  settings: { offset = MARK_OFFSET },
}: Pick<MarkRoom, 'bleed' | 'settings'>): number =>
  Math.max(offset, bleed.left, bleed.right, bleed.head, bleed.foot);
/** A mark that is cut shorter than this share of its length by what is in its way is left out. */
const SHORTEST = 0.4;
/** Lines that are not printed, so nothing is in their way. */
const UNSEEN: readonly SheetLine['kind'][] = ['fold', 'cut-path', 'fold-path'];

/** Where bleed may lie, as far as the plan has any. */
const bleedBoxOf = ({ box, room }: PlacedSlot, widest: number): Box =>
  grow(box, {
    left: Math.min(room.left, widest),
    right: Math.min(room.right, widest),
    head: Math.min(room.head, widest),
    foot: Math.min(room.foot, widest),
  });

/** All boxes that no mark may touch, on the front of a sheet. */
export const keptClear = (slots: readonly PlacedSlot[], bleed: Sides): Box[] => {
  const widest = Math.max(bleed.left, bleed.right, bleed.head, bleed.foot);
  return slots.map((slot) => bleedBoxOf(slot, widest));
};

/** The marks of a sheet that are lines, and its folds, as its front is seen. */
export function linesOf(
  placed: readonly PlacedForme[],
  slots: readonly PlacedSlot[],
  room: MarkRoom,
): SheetLine[] {
  const { settings } = room;
  const [off, long] = [beyond(room), lengthOf(settings)];
  const obstacles = keptClear(slots, room.bleed);
  const lines = new Map<string, SheetLine>();
  const put: LineContext['put'] = (kind, [x0, y0, x1, y1]) => {
    const line = { x0: Math.min(x0, x1), y0: Math.min(y0, y1), x1: Math.max(x0, x1), y1: Math.max(y0, y1) };
    const left = UNSEEN.includes(kind) ? line : clearOf(line, obstacles, [x0, y0], long);
    if (!left) return false;
    const key = [
      kind,
      ...[left.x0, left.y0, left.x1, left.y1].map((at) => Math.round(at / TOLERANCES.place)),
    ].join();
    lines.set(key, { kind, ...left });
    return true;
  };
  const ends: LineContext['ends'] = (kind, axis, at, from, to) => {
    const pairs = [
      [from - off, from - off - long],
      [to + off, to + off + long],
    ] as const;
    const both = pairs.map(([a, b]) => put(kind, axis === 'vertical' ? [at, a, at, b] : [a, at, b, at]));
    return both.includes(true);
  };
  for (const { x0, y0, x1, y1 } of foldLines(placed)) put('fold', [x0, y0, x1, y1]);
  const trims = bounds(slots.map(({ box }) => box));
  for (const mark of askedFor(settings))
    mark.lines?.({ placed, slots, trims, lines: lines.values(), put, ends });
  return [...lines.values()].sort((a, b) => a.x0 - b.x0);
}

/** A mark as far as it is clear of what must not be touched, from its end next to the trim; undefined if too little is left. */
function clearOf(
  line: Box,
  obstacles: readonly Box[],
  [x, y]: [number, number],
  long: number,
): Box | undefined {
  let { x0, y0, x1, y1 } = line;
  for (const box of obstacles) {
    if (
      box.x1 < x0 - TOLERANCES.place ||
      box.x0 > x1 + TOLERANCES.place ||
      box.y1 < y0 - TOLERANCES.place ||
      box.y0 > y1 + TOLERANCES.place
    )
      continue;
    const upright = x1 - x0 < y1 - y0;
    if (upright) {
      if (y <= box.y0 + TOLERANCES.place) y1 = Math.min(y1, box.y0);
      else if (y >= box.y1 - TOLERANCES.place) y0 = Math.max(y0, box.y1);
      else return undefined;
    } else if (x <= box.x0 + TOLERANCES.place) x1 = Math.min(x1, box.x0);
    else if (x >= box.x1 - TOLERANCES.place) x0 = Math.max(x0, box.x1);
    else return undefined;
  }
  return x1 - x0 + (y1 - y0) >= SHORTEST * long ? { x0, y0, x1, y1 } : undefined;
}

/** Lines on the front as they are seen on the back; tools follow their paths from the front. */
export function linesBehind(lines: readonly SheetLine[], sheet: Size, whole: Matrix): SheetLine[] {
  return lines
    .filter(({ kind }) => kind !== 'cut-path' && kind !== 'fold-path')
    .map(({ kind, x0, y0, x1, y1 }) => {
      const [from, to] = [
        applyToPoint(whole, sheet.width - x0, y0),
        applyToPoint(whole, sheet.width - x1, y1),
      ];
      return {
        kind,
        x0: Math.min(from.x, to.x),
        y0: Math.min(from.y, to.y),
        x1: Math.max(from.x, to.x),
        y1: Math.max(from.y, to.y),
      };
    })
    .sort((a, b) => a.x0 - b.x0);
}

/** True if a box may be printed in: on the sheet, and clear of all that no mark may touch. */
export const isClear = (box: Box, obstacles: readonly Box[], printed: Box): boolean =>
  contains(printed, box, TOLERANCES.place) &&
  !obstacles.some(
    (each) =>
      each.x0 < box.x1 - TOLERANCES.place &&
      each.x1 > box.x0 + TOLERANCES.place &&
      each.y0 < box.y1 - TOLERANCES.place &&
      each.y1 > box.y0 + TOLERANCES.place,
  );
