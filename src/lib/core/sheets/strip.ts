import type { Imposed } from '../fold/impose';
import { grow, intersect, sizeBox, type Size } from '../measure/box';
import { applyToBox, compose, translate, turnMatrix, type Matrix, type Turn } from '../measure/matrix';
import { bleedBox, sidesOf, spineAt, type Spine } from '../pages/page';
import type { Cell, PlannedPage, SheetLine, SheetPlan } from './plan';
import { MARK_LENGTH, MARK_OFFSET, type Stitched } from './scheme';

/** A leaf or a panel on it: its two faces and its length from fold to fold or to its trim. */
export interface Segment {
  front: PlannedPage;
  back: PlannedPage;
  length: number;
}

/** One sheet: where folding puts each of its pages, the leaf that lies there, and how far it reaches on both sides of the spine. */
export interface Strip {
  places: readonly { place: Imposed; leaf: readonly Segment[] }[];
  before: number;
  after: number;
}

/** What all sheets of a plan share. */
export interface Bench {
  cell: Size;
  sheet: Size;
  scheme: Stitched;
  spine: Spine;
  turnAxis: SheetPlan['turnAxis'];
  needed: SheetPlan['needed'];
}

/** Whether a place lies to the right of the spine fold, or above it, as the front is seen. */
export const isAfter = ({ column, row }: Imposed, spine: Spine): boolean =>
  (spine === 'head' ? row : column) === 1;

/** Places along a strip, from the left edge of the sheet side, or from its foot where the spine is at the head. */
export interface Along {
  spine: number;
  folds: readonly number[];
  ends: readonly [number, number];
}

/** The places along a strip as the front is seen: it lies in the middle of the sheet. */
export function alongOf({ places, before, after }: Strip, { sheet, spine, scheme }: Bench): Along {
  const middle = (spine === 'head' ? sheet.height : sheet.width) / 2;
  const fold = middle + (before - after) / 2;
  const folds = new Set([fold]);
  for (const { place, leaf } of places) {
    let offset = scheme.gap / 2;
    for (const { length } of leaf.slice(0, -1)) {
      offset += length;
      folds.add(isAfter(place, spine) ? fold + offset : fold - offset);
    }
  }
  return { spine: fold, folds: [...folds].sort((a, b) => a - b), ends: [fold - before, fold + after] };
}

/** The same as the back is seen, once the sheet is turned over. */
export function turnedOver(along: Along, { sheet, spine, turnAxis }: Bench): Along {
  const head = spine === 'head';
  if (head === (turnAxis === 'vertical')) return along;
  const over = (at: number) => (head ? sheet.height : sheet.width) - at;
  return {
    spine: over(along.spine),
    folds: along.folds.map(over).reverse(),
    ends: [over(along.ends[1]), over(along.ends[0])],
  };
}

/** The cells of one side of a sheet, whose spine fold lies at `fold`, as that side is seen. */
export function layOut(face: 'front' | 'back', { places }: Strip, fold: number, bench: Bench): Cell[] {
  const { sheet, spine, cell, scheme } = bench;
  const upsideDown = face === 'back' && bench.turnAxis === 'horizontal';
  const whole: Matrix = upsideDown ? turnMatrix(sizeBox(sheet), 180) : translate(0, 0);
  const head = spine === 'head';
  const cells = places
    .filter(({ place }) => place.face === face)
    .flatMap(({ place, leaf }) => {
      let offset = scheme.gap / 2;
      return leaf.map((segment, n): Cell => {
        const from = isAfter(place, spine) ? fold + offset : fold - offset - segment.length;
        offset += segment.length;
        const size = head
          ? { width: cell.width, height: segment.length }
          : { width: segment.length, height: cell.height };
        // The back is seen turned over about a vertical axis.
        const across = face === 'front' ? from : sheet.width - from - segment.length;
        const slot = head
          ? { ...size, x: (sheet.width - cell.width) / 2, y: from }
          : { ...size, x: across, y: (sheet.height - cell.height) / 2 };
        const room = { inner: n ? 0 : scheme.gap / 2, outer: n < leaf.length - 1 ? 0 : Infinity };
        return toCell(place.page % 2 ? segment.front : segment.back, slot, place.turn, room, whole);
      });
    });
  return cells.sort((a, b) => (head ? b.trim.y0 - a.trim.y0 : a.trim.x0 - b.trim.x0));
}

/** A page in its slot on a sheet side. `room` is how far its bleed may reach beyond the slot at the spine and at the fore edge. */
function toCell(
  planned: PlannedPage,
  slot: Size & { x: number; y: number },
  folded: Turn,
  room: { inner: number; outer: number },
  whole: Matrix,
): Cell {
  const { page, side } = planned;
  const size = page?.trim ?? slot;
  const spine = spineAt(side);
  // A page of another size stands at the spine and at the head of the book, where binding and the reader's eye align it.
  const inSlot = {
    x: spine === 'left' ? 0 : slot.width - size.width,
    y: spine === 'foot' ? 0 : slot.height - size.height,
  };
  // A leaf that turns upwards shows its back with the foot at the spine.
  const turn = ((folded + (side === 'upper' ? 180 : 0)) % 360) as Turn;
  const turned = compose(turnMatrix(sizeBox(slot), turn), translate(slot.x, slot.y));
  const matrix = compose(compose(translate(inSlot.x, inSlot.y), turned), whole);
  const far = 14_400;
  const edges = {
    spine: room.inner,
    fore: Math.min(far, slot.width - size.width + slot.height - size.height + room.outer),
    head: far,
    foot: far,
  };
  const art = page ? bleedBox(page, side) : sizeBox(size);
  const clip = applyToBox(matrix, intersect(art, grow(sizeBox(size), sidesOf(edges, side))));
  return {
    ...planned,
    trim: applyToBox(matrix, sizeBox(size)),
    clip,
    turn: whole[0] < 0 ? (((turn + 180) % 360) as Turn) : turn,
    matrix,
  };
}

/**
 * Trim marks at the outer corners, fold marks and the folds themselves between the pages. They stand clear of the widest
 * bleed of all; sheets of one length have them in the same places.
 */
export function linesOf(
  { folds, ends }: Along,
  { cell, sheet, needed, scheme, spine }: Bench,
): readonly SheetLine[] {
  const head = spine === 'head';
  const { trims, bleeds } = needed;
  const cross = head ? cell.width : cell.height;
  const low = ((head ? sheet.width : sheet.height) - cross) / 2;
  const high = low + cross;
  const beyond = (size: 'width' | 'height') => Math.max(MARK_OFFSET, (bleeds[size] - trims[size]) / 2);
  const [aside, above] = head ? [beyond('height'), beyond('width')] : [beyond('width'), beyond('height')];
  const lines: SheetLine[] = [];
  /** A line from one place to another, the first figure of each along the strip. */
  const draw = (kind: SheetLine['kind'], [a0, c0]: [number, number], [a1, c1]: [number, number]) =>
    lines.push(head ? { kind, x0: c0, y0: a0, x1: c1, y1: a1 } : { kind, x0: a0, y0: c0, x1: a1, y1: c1 });
  const across = (kind: SheetLine['kind'], at: number) => {
    draw(kind, [at, low - above - MARK_LENGTH], [at, low - above]);
    draw(kind, [at, high + above], [at, high + above + MARK_LENGTH]);
  };
  for (const at of folds) draw('fold', [at, low], [at, high]);
  if (scheme.marks.trim) {
    for (const at of ends) across('trim-mark', at);
    for (const at of [low, high]) {
      draw('trim-mark', [ends[0] - aside - MARK_LENGTH, at], [ends[0] - aside, at]);
      draw('trim-mark', [ends[1] + aside, at], [ends[1] + aside + MARK_LENGTH, at]);
    }
  }
  if (scheme.marks.fold) for (const at of folds) across('fold-mark', at);
  return lines;
}
