import { bounds, grow, intersect, mirrored, sizeBox, type Box, type Sides, type Size } from '../measure/box';
import {
  applyToBox,
  compose,
  translate,
  quarters,
  turnMatrix,
  turnOf,
  type Matrix,
  type Turn,
} from '../measure/matrix';
import { bleedBox, bleedSides, spineAt } from '../pages/page';
import type { Side } from '../model/page';
import { type FaceChange, type FlatFolding, type FormePiece, type LaidForme } from './plan';
import type { Cell, PlannedPage } from './plan';
import { entryAt } from '../entries';
import { TOLERANCES } from '../measure/tolerances';

/** A page on one face of a slot. The back is seen as turned over about a vertical axis. */
export interface Face {
  planned: PlannedPage;
  turn: Turn;
  /** Towards the spine, in points: the page is moved by so much, or made narrower by it. */
  creep?: { by: 'shift' | 'scale'; length: number };
}

/** How a page lies behind another one, seen with the sheet turned over about a vertical axis: leaves of a book bound at the head turn head over foot. */
export const backTurn = (side: Side): Turn => (side === 'upper' || side === 'lower' ? 180 : 0);

/** A leaf's or a panel's place in a forme, as its front is seen, in points from the forme's lower left corner. */
export interface Slot {
  box: Box;
  front?: Face;
  back?: Face;
  /** How far bleed may reach beyond the box; at a fold usually not at all. */
  room: Sides;
  /** Its sides that are no cut, but lie at a fold. */
  folded?: readonly (keyof Sides)[];
  /** Pages of another size stand in the middle, not at their spine and head. */
  centred?: true;
}

/** A fold of the forme, from its one end to the other. */
export interface FoldLine {
  axis: 'vertical' | 'horizontal';
  at: number;
  from: number;
  to: number;
  way?: 'valley' | 'mountain';
}

/** What one sheet carries once: a folded sheet, or a grid of pieces. Its size is from trim to trim. */
export interface Forme {
  size: Size;
  slots: readonly Slot[];
  folds: readonly FoldLine[];
  foldings?: readonly FlatFolding[];
  /** Its pieces, where they are not all alike, with cells that stay empty. */
  pieces?: readonly FormePiece[];
  /** Solid bars that are printed besides, on its front or its back, as its front is seen. */
  bars?: readonly { face: 'front' | 'back'; box: Box }[];
  name?: string;
  /** Forms with the same one have their slots and folds in the same places, so that these are worked out once. */
  like?: object;
}

/** A forme where it lies on the front of a sheet, turned clockwise, in points from the sheet's lower left corner. */
export interface PlacedForme {
  forme: Forme;
  x: number;
  y: number;
  turn: Turn;
  /** How far its bleed may reach beyond it on the sheet: to the middle between it and the next. */
  beside: Sides;
  /** It lies on its face: the forme is the one of the sheet turned over. */
  over?: true;
}

/** More than any sheet: if nothing stops the bleed. */
export const OPEN = 14_400;

/** The forme as it is seen from behind, turned over about a vertical axis: so it lies when its back is printed with the front of another. */
export function turnedOver({ size, slots, folds, bars, pieces, ...rest }: Forme): Forme {
  return {
    ...rest,
    size,
    ...(pieces
      ? {
          pieces: pieces.map(({ box, turn, of }) => ({
            box: mirrored(box, size.width),
            turn: quarters(-turn),
            of,
          })),
        }
      : {}),
    ...(bars
      ? {
          bars: bars.map(({ face, box }) => ({
            face: face === 'front' ? ('back' as const) : ('front' as const),
            box: mirrored(box, size.width),
          })),
        }
      : {}),
    slots: slots.map(({ front, back, box, room, folded, ...slot }): Slot => ({
      ...slot,
      box: mirrored(box, size.width),
      room: { ...room, left: room.right, right: room.left },
      ...(folded ? { folded: folded.map((side) => MIRRORED[side]) } : {}),
      ...(back ? { front: back } : {}),
      ...(front ? { back: front } : {}),
    })),
    folds: folds.map((fold) => foldBehind(fold, size.width)),
  };
}
/** A fold as it is seen from behind: what closes over the front is a mountain there. */
export function foldBehind({ way, ...fold }: FoldLine, width: number): FoldLine {
  const turned =
    fold.axis === 'vertical'
      ? { ...fold, at: width - fold.at }
      : { ...fold, from: width - fold.to, to: width - fold.from };
  return { ...turned, ...(way ? { way: way === 'valley' ? 'mountain' : 'valley' } : {}) };
}
const MIRRORED = { left: 'right', right: 'left', head: 'head', foot: 'foot' } as const;

const CLOCKWISE: readonly (keyof Sides)[] = ['head', 'right', 'foot', 'left'];
/** The side at which a side lies once it is turned clockwise. */
const sideTurned = (side: keyof Sides, turn: Turn): keyof Sides =>
  entryAt(CLOCKWISE, (CLOCKWISE.indexOf(side) + turn / 90) % 4);
/** Lengths at the sides of something, at the sides where they lie once it is turned clockwise. */
function sidesTurned(sides: Sides, turn: Turn): Sides {
  const turned = { ...sides };
  for (const side of CLOCKWISE) turned[sideTurned(side, turn)] = sides[side];
  return turned;
}

/** The forme turned clockwise by a quarter: what is in front with it, what is behind the other way. */
export function turnedForm({ size, slots, folds, bars, ...rest }: Forme): Forme {
  const matrix = turnMatrix(sizeBox(size), 90);
  return {
    ...rest,
    size: { width: size.height, height: size.width },
    slots: slots.map(({ front, back, box, room, folded, ...slot }): Slot => ({
      ...slot,
      box: applyToBox(matrix, box),
      room: sidesTurned(room, 90),
      ...(folded ? { folded: folded.map((side) => sideTurned(side, 90)) } : {}),
      ...(front ? { front: { ...front, turn: turnOf(front.turn + 90)! } } : {}),
      ...(back ? { back: { ...back, turn: turnOf(back.turn - 90)! } } : {}),
    })),
    folds: folds.map(({ axis, at, from, to, ...fold }): FoldLine =>
      axis === 'vertical'
        ? { ...fold, axis: 'horizontal', at: size.width - at, from, to }
        : { ...fold, axis: 'vertical', at, from: size.width - to, to: size.width - from },
    ),
    ...(bars ? { bars: bars.map(({ face, box }) => ({ face, box: applyToBox(matrix, box) })) } : {}),
  };
}

/** The forme within a larger one, so far from its lower left corner. */
export function movedForm(forme: Forme, x: number, y: number): Forme {
  const matrix = translate(x, y);
  return {
    ...forme,
    slots: forme.slots.map((slot) => ({ ...slot, box: applyToBox(matrix, slot.box) })),
    folds: forme.folds.map((fold): FoldLine => {
      const [across, along] = fold.axis === 'vertical' ? [x, y] : [y, x];
      return { ...fold, at: fold.at + across, from: fold.from + along, to: fold.to + along };
    }),
    ...(forme.bars
      ? { bars: forme.bars.map(({ face, box }) => ({ face, box: applyToBox(matrix, box) })) }
      : {}),
  };
}

/**
 * The pieces of a forme, from trim to trim: panels that are only folded between them are one, and so is all of a forme that is
 * folded as a whole.
 */
export function piecesOf({ size, slots, foldings = [] }: Forme): Box[] {
  if (foldings.some(({ of }) => of === undefined)) return [sizeBox(size)];
  const pieces: Slot[][] = [];
  for (const slot of slots) {
    const joined = pieces.filter((piece) => piece.some((other) => areJoined(other, slot)));
    for (const one of joined) pieces.splice(pieces.indexOf(one), 1);
    pieces.push([...joined.flat(), slot]);
  }
  return pieces.map((piece) => bounds(piece.map(({ box }) => box)));
}
/** Two slots lie on one another, or side by side with a fold between them. */
function areJoined(a: Slot, b: Slot): boolean {
  const across = Math.min(a.box.x1, b.box.x1) - Math.max(a.box.x0, b.box.x0);
  const up = Math.min(a.box.y1, b.box.y1) - Math.max(a.box.y0, b.box.y0);
  if (across > TOLERANCES.sum && up > TOLERANCES.sum) return true;
  const beside = across < TOLERANCES.sum && across > -TOLERANCES.sum && up > TOLERANCES.sum;
  const above = up < TOLERANCES.sum && up > -TOLERANCES.sum && across > TOLERANCES.sum;
  const isFold = (side: keyof Sides, other: keyof Sides) =>
    (a.folded?.includes(side) && b.folded?.includes(other)) ||
    (a.folded?.includes(other) && b.folded?.includes(side));
  return !!((beside && isFold('left', 'right')) || (above && isFold('head', 'foot')));
}

/** From a forme to the front of the sheet that it lies on. */
export const onSheet = ({ forme, x, y, turn }: PlacedForme): Matrix =>
  compose(turnMatrix(sizeBox(forme.size), turn), translate(x, y));

/** How placed formes lie on a sheet, with their pieces: those of a forme without several are one, or all alike. */
export const laidFormes = (placed: readonly PlacedForme[]): LaidForme[] =>
  placed.map((each): LaidForme => {
    const { forme, turn, over = false } = each;
    const matrix = onSheet(each);
    return {
      matrix,
      turn,
      over,
      box: applyToBox(matrix, sizeBox(forme.size)),
      pieces: forme.pieces ?? piecesOf(forme).map((box) => ({ box, turn: 0, of: 0 })),
    };
  });

/** A slot as it lies on the front of a sheet: `index` is its number in the form, which may lie on its face. */
export interface PlacedSlot extends Pick<Slot, 'box' | 'room' | 'folded' | 'centred'> {
  index: number;
  turn: Turn;
  over: boolean;
  /** Where pages come to lie in it, by the face and their turn: worked out once for all sheets alike. */
  frames: Map<string, Frame>;
}

/** Where a page comes to lie on a sheet side, as that side is seen. */
interface Frame {
  turn: Turn;
  /** The slot's size as its page stands upright. */
  upright: Size;
  /** From the slot, its page upright, to the sheet side. */
  matrix: Matrix;
  /** The slot, and how far bleed may reach around it. */
  around: Box;
}

/** Slots of placed formes as they lie on the front of a sheet: all that marks and cells have to know besides the pages. */
export const slotsOnSheet = (placed: readonly PlacedForme[]): PlacedSlot[] =>
  placed.flatMap((each) => {
    const { forme, turn, beside, over = false } = each;
    const matrix = onSheet(each);
    const whole = applyToBox(matrix, sizeBox(forme.size));
    return forme.slots.map((slot, index): PlacedSlot => {
      const box = applyToBox(matrix, slot.box);
      const room = sidesTurned(slot.room, turn);
      return {
        index,
        turn,
        over,
        box,
        frames: new Map(),
        room: {
          left: Math.min(room.left, box.x0 - whole.x0 + beside.left),
          right: Math.min(room.right, whole.x1 - box.x1 + beside.right),
          foot: Math.min(room.foot, box.y0 - whole.y0 + beside.foot),
          head: Math.min(room.head, whole.y1 - box.y1 + beside.head),
        },
        ...(slot.centred ? { centred: true } : {}),
        ...(slot.folded ? { folded: slot.folded.map((side) => sideTurned(side, turn)) } : {}),
      };
    });
  });

/** The sheet side's own turn: a back seen after its sheet was turned about a horizontal axis is upside down. */
export const backMatrix = (sheet: Size, axis: 'vertical' | 'horizontal'): Matrix =>
  axis === 'vertical' ? translate(0, 0) : turnMatrix(sizeBox(sheet), 180);

/** The cells of one side of a sheet that carries a forme, as that side is seen; those in a row from left to right, rows from the head. */
export function cellsOf(
  face: 'front' | 'back',
  forme: Forme,
  placed: readonly PlacedSlot[],
  sheet: Size,
  axis: 'vertical' | 'horizontal',
  byHand?: ReadonlyMap<number, FaceChange>,
): Cell[] {
  const cells: { cell: Cell; shown: Face; slot: PlacedSlot }[] = [];
  for (const slot of placed) {
    const own = entryAt(forme.slots, slot.index);
    const shown = (face === 'front') === slot.over ? own.back : own.front;
    if (shown)
      cells.push({ cell: toCell(shown, slot, frameOf(face, shown.turn, slot, sheet, axis)), shown, slot });
  }
  cells.sort(({ cell: a }, { cell: b }) =>
    Math.abs(a.trim.y1 - b.trim.y1) > TOLERANCES.row ? b.trim.y1 - a.trim.y1 : a.trim.x0 - b.trim.x0,
  );
  return cells.map(({ cell, shown, slot }, n) => {
    const change = byHand?.get(n);
    if (!change) return cell;
    const { planned, turned, out } = change;
    const turn = turned ? turnOf(shown.turn + 180)! : shown.turn;
    const { page: _, ...blank } = planned;
    return {
      ...toCell({ ...shown, planned: out ? blank : planned }, slot, frameOf(face, turn, slot, sheet, axis)),
      hand: out ? 'left-out' : 'changed',
    };
  });
}

function frameOf(
  face: 'front' | 'back',
  own: Turn,
  { box, room, turn: lies, frames }: PlacedSlot,
  sheet: Size,
  axis: 'vertical' | 'horizontal',
): Frame {
  const key = `${face} ${own}`;
  const known = frames.get(key);
  if (known) return known;
  const front = face === 'front';
  const whole = front ? translate(0, 0) : backMatrix(sheet, axis);
  const seen = front ? box : mirrored(box, sheet.width);
  const turn = turnOf(own + (front ? lies : -lies))!;
  const [width, height] = [seen.x1 - seen.x0, seen.y1 - seen.y0];
  const upright = turn % 180 ? { width: height, height: width } : { width, height };
  const inPlace = compose(turnMatrix(sizeBox(upright), turn), translate(seen.x0, seen.y0));
  const frame: Frame = {
    turn: whole[0] < 0 ? turnOf(turn + 180)! : turn,
    upright,
    matrix: compose(inPlace, whole),
    around: applyToBox(whole, grow(seen, front ? room : { ...room, left: room.right, right: room.left })),
  };
  frames.set(key, frame);
  return frame;
}

/** A page in its slot on a sheet side. */
function toCell({ planned, creep }: Face, { centred }: PlacedSlot, frame: Frame): Cell {
  const { page, side } = planned;
  const { upright, around, turn } = frame;
  const size = page?.trim ?? upright;
  const spine = spineAt(side);
  // A page of another size stands at the spine and at the head of the book, where binding and the reader's eye align it; in
  // a book bound at the head, at the left, where lines begin.
  const x = centred ? 0.5 : spine === 'right' ? 1 : 0;
  const y = centred ? 0.5 : spine === 'foot' ? 0 : 1;
  const inSlot = translate(x * (upright.width - size.width), y * (upright.height - size.height));
  const matrix = compose(creep ? compose(creepMatrix(creep, spine, size), inSlot) : inSlot, frame.matrix);
  const art = page ? bleedBox(page, side) : sizeBox(size);
  // Of every cell: what is new stands first, which Node.js puts together ten times as fast.
  return {
    trim: intersect(applyToBox(matrix, sizeBox(size)), around),
    clip: intersect(applyToBox(matrix, art), around),
    turn,
    matrix,
    ...planned,
  };
}

/** Moves a page towards its spine, or makes it narrower there. */
function creepMatrix(
  { by, length }: NonNullable<Face['creep']>,
  spine: keyof Sides,
  { width, height }: Size,
): Matrix {
  const away = spine === 'left' || spine === 'foot' ? -1 : 1;
  const upright = spine === 'head' || spine === 'foot';
  if (by === 'shift') return upright ? translate(0, away * length) : translate(away * length, 0);
  const extent = upright ? height : width;
  const factor = (extent - length) / extent;
  const stays = away > 0 ? length : 0;
  return upright ? [1, 0, 0, factor, 0, stays] : [factor, 0, 0, 1, stays, 0];
}

/** How far bleed reaches at most beyond a forme's own box, at each side of the forme as its front is seen. */
export function bleedOf({ size, slots }: Forme): Sides {
  const most: Sides = { left: 0, right: 0, head: 0, foot: 0 };
  const beyond = (slot: Slot, { planned: { page, side }, turn }: Face, back: boolean) => {
    if (!page) return;
    const turned = sidesTurned(bleedSides(page.bleed, side), turn);
    const sides = back ? { ...turned, left: turned.right, right: turned.left } : turned;
    const { box, room } = slot;
    const inside = {
      left: box.x0,
      right: size.width - box.x1,
      head: size.height - box.y1,
      foot: box.y0,
    };
    for (const at of CLOCKWISE) most[at] = Math.max(most[at], Math.min(sides[at], room[at]) - inside[at]);
  };
  for (const slot of slots) {
    if (slot.front) beyond(slot, slot.front, false);
    if (slot.back) beyond(slot, slot.back, true);
  }
  return most;
}
