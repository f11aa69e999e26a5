import { applyToBox, quarters } from '../measure/matrix';
import { heightOf, sizeBox, widthOf, type Box, type Sides, type Size } from '../measure/box';
import { turnedPattern } from '../fold/patterns';
import { fits } from '../paper/stock';
import {
  backMatrix,
  bleedOf,
  cellsOf,
  laidFormes,
  onSheet,
  OPEN,
  piecesOf,
  slotsOnSheet,
  turnedOver,
  type Forme,
  type PlacedForme,
  type PlacedSlot,
} from './forme';
import { changeByHand } from './byHand';
import { type FaceChanges, type HandResult } from './plan';
import { marginMarks } from './marginMarks';
import { beyondMarks } from './marks';
import { beyond, keptClear, lengthOf, linesBehind, linesOf, type MarkRoom } from './markLines';
import type { SheetFolding, SheetJob, PlannedPage, Sheet, SheetLine, SheetPlan } from './plan';
import type { ByHand, WorkStyle } from './pressTerms';
import type { Press } from './scheme';
import type { MarkSettings } from './marks';
import { entryAt, firstOf } from '../entries';

/** Forms to be printed, in order, and what a plan says besides. */
export interface ToPrint {
  formes: readonly Forme[];
  pages: readonly PlannedPage[];
  cell: Size;
  blanksAdded: number;
  /** Pieces of the finished kind that one forme gives. */
  piecesPerForme?: number;
  creep?: SheetPlan['creep'];
  /** All formes together make one piece: the sheets of a book. */
  together?: true;
  /** Paper of one piece in square points, where slots lie on each other. */
  pieceArea?: number;
  job: SheetJob;
  weight?: number | undefined;
  /** Cells of a sheet whose pieces differ. */
  grid?: { across: number; up: number };
  /** The sheet as it lies, where that is settled; else it lies along the work. */
  sheet?: Size;
}

interface Across {
  across: number;
  up: number;
}

/** How often a forme lies on a sheet with so much between copies, at most. */
const mostOf = (room: Size, forme: Size, between: number): Across => ({
  across: Math.max(0, Math.floor((room.width + between + 1e-6) / (forme.width + between))),
  up: Math.max(0, Math.floor((room.height + between + 1e-6) / (forme.height + between))),
});

const NO_BLEED: Sides = { left: 0, right: 0, head: 0, foot: 0 };
export const widest = (all: readonly Sides[]): Sides =>
  all.reduce(
    (most, each) => ({
      left: Math.max(most.left, each.left),
      right: Math.max(most.right, each.right),
      head: Math.max(most.head, each.head),
      foot: Math.max(most.foot, each.foot),
    }),
    NO_BLEED,
  );

/** Whether work is turned by a quarter: half turns more or less lie alike. */
export const isSideways = (press: Press): boolean => (press.turned ?? 0) % 180 === 90;
const laid = (size: Size, press: Press): Size =>
  isSideways(press) ? { width: size.height, height: size.width } : size;

/** How both sides come to be printed, if nothing else is said. */
export const workOf = (press: Pick<Press, 'work'>): WorkStyle => press.work ?? 'sheetwise';
/** The axis about which a sheet is turned over. */
export function turnAxisOf(press: Pick<Press, 'turn' | 'work'>, sheet: Size): SheetPlan['turnAxis'] {
  const work = workOf(press);
  if (work === 'work-and-turn') return 'vertical';
  if (work === 'work-and-tumble') return 'horizontal';
  return (press.turn === 'short-edge') === sheet.width >= sheet.height ? 'vertical' : 'horizontal';
}

/** The part of a sheet that is printed on: without the gripper strip, of which a sheet turned head over foot has two. */
export function printedBox(sheet: Size, press: Press): Box {
  const gripper = press.gripper ?? 0;
  const both = workOf(press) !== 'single-side' && turnAxisOf(press, sheet) === 'horizontal';
  return { ...sizeBox(sheet), y0: gripper, y1: sheet.height - (both ? gripper : 0) };
}

/** What bleed and marks take beyond the trims, at each side alike, across and up. */
function margins(bleed: Sides, settings: MarkSettings): { bleeds: Size; marks: Size } {
  const bleeds = { width: Math.max(bleed.left, bleed.right), height: Math.max(bleed.head, bleed.foot) };
  const wanted =
    settings.trim ||
    settings.fold ||
    settings.centre ||
    settings.registration ||
    settings.bar ||
    settings.slug?.trim();
  const more = wanted ? beyond({ bleed, settings }) + lengthOf(settings) : 0;
  return {
    bleeds,
    marks: { width: Math.max(bleeds.width, more), height: Math.max(bleeds.height, more) },
  };
}
const grown = (size: Size, by: Size): Size => ({
  width: size.width + 2 * by.width,
  height: size.height + 2 * by.height,
});

/** What bleed and marks take beside formes, across and up. */
export const roundBleed = (formes: readonly Forme[], press: Press): Size =>
  margins(turnedSides(widest(formes.map(bleedOf)), press), press.marks).marks;

/** The stock lying, and standing. */
export function sheetsLaid({ stock: { width, height } }: Press): [Size, Size] {
  const [short, long] = [Math.min(width, height), Math.max(width, height)];
  return [
    { width: long, height: short },
    { width: short, height: long },
  ];
}

/** How many copies lie on a sheet, and how the stock lies for it. */
export function layCopies(
  forme: Size,
  press: Press,
  around: Size,
): { sheet: Size; copies: Across; block: Size } {
  const between = press.between ?? 0;
  const [flat, upright] = sheetsLaid(press);
  const piece = laid(forme, press);
  const blockOf = ({ across, up }: Across): Size => ({
    width: across * piece.width + (across - 1) * between,
    height: up * piece.height + (up - 1) * between,
  });
  const along = (size: Size) => (size.width >= size.height ? flat : upright);
  const even = ({ across, up }: Across): Across => {
    const work = workOf(press);
    if (work === 'work-and-turn') return { across: Math.max(2, across - (across % 2)), up: Math.max(1, up) };
    if (work === 'work-and-tumble') return { across: Math.max(1, across), up: Math.max(2, up - (up % 2)) };
    return { across: Math.max(1, across), up: Math.max(1, up) };
  };
  if (press.copies !== 'most') {
    const copies = even(press.copies ?? { across: 1, up: 1 });
    const block = blockOf(copies);
    return { sheet: along(block), copies, block };
  }
  const tried = [along(piece), along({ width: piece.height, height: piece.width })].map((sheet) => {
    const box = printedBox(sheet, press);
    const room = {
      width: box.x1 - box.x0 - 2 * around.width,
      height: box.y1 - box.y0 - 2 * around.height,
    };
    const copies = even(mostOf(room, piece, between));
    const block = blockOf(copies);
    return { sheet, copies, block, count: fits(block, room) ? copies.across * copies.up : 0 };
  });
  return entryAt(tried, 1).count > firstOf(tried).count ? entryAt(tried, 1) : firstOf(tried);
}

/** Where the copies of a forme lie on the front of a sheet. */
function placeCopies(
  forme: Forme,
  { across, up }: Across,
  sheet: Size,
  press: Press,
  around: Size,
): PlacedForme[] {
  const between = press.between ?? 0;
  const size = laid(forme.size, press);
  const [width, height] = [
    across * size.width + (across - 1) * between,
    up * size.height + (up - 1) * between,
  ];
  const box = printedBox(sheet, press);
  const work = workOf(press);
  const lay = press.lay ?? 'centre';
  const x =
    lay === 'centre' || work === 'work-and-turn'
      ? (sheet.width - width) / 2
      : lay === 'left'
        ? box.x0 + around.width
        : box.x1 - around.width - width;
  const y =
    lay === 'centre' || work === 'work-and-tumble' ? (box.y0 + box.y1 - height) / 2 : box.y0 + around.height;
  const turn = press.turned ?? 0;
  const behind = work === 'work-and-turn' || work === 'work-and-tumble' ? turnedOver(forme) : forme;
  return Array.from({ length: across * up }, (_, n): PlacedForme => {
    const [column, row] = [n % across, Math.floor(n / across)];
    const next = (there: boolean) => (there ? between / 2 : OPEN);
    const at = {
      x: x + column * (size.width + between),
      y: y + row * (size.height + between),
      beside: {
        left: next(column > 0),
        right: next(column < across - 1),
        foot: next(row > 0),
        head: next(row < up - 1),
      },
    };
    if (work === 'work-and-turn' && column >= across / 2)
      return { forme: behind, over: true, ...at, turn: quarters(360 - turn) };
    // Turned head over foot, a forme comes to lie upside down behind the one below it.
    if (work === 'work-and-tumble' && row >= up / 2)
      return { forme: behind, over: true, ...at, turn: quarters(540 - turn) };
    return { forme, ...at, turn };
  });
}

/** Works out the sheets that print formes: where they lie, what is on both sides, and the marks. */
export function planForms(job: ToPrint, press: Press): SheetPlan {
  const { formes } = job;
  const bleed = turnedSides(widest(formes.map(bleedOf)), press);
  const around = margins(bleed, press.marks);
  const largest = {
    width: Math.max(...formes.map(({ size }) => size.width)),
    height: Math.max(...formes.map(({ size }) => size.height)),
  };
  const { copies, block, ...laidOut } = layCopies(largest, press, around.marks);
  const sheet = job.sheet ?? laidOut.sheet;
  const layOut = layer(job, press, bleed, around.marks);
  return planned(
    { ...job, weight: press.marks.weight },
    {
      sheet,
      copies,
      needed: { trims: block, bleeds: grown(block, around.bleeds), marks: grown(block, around.marks) },
      turnAxis: turnAxisOf(press, sheet),
      work: workOf(press),
      layOut: (forme, number, byHand) => layOut(forme, number, sheet, copies, byHand),
      sheetOf: () => sheet,
      placedOn: (forme) => placeCopies(forme, copies, sheet, press, around.marks),
      foldings: (forme, number) => foldingsOn(forme, number, { sheet, copies, press, around: around.marks }),
      ...(press.byHand?.length ? { byHand: press.byHand } : {}),
    },
  );
}

/** The same for formes that each get a sheet just as large as they need with their marks, printed on one side. */
export function planToSize(job: ToPrint, marks: MarkSettings): SheetPlan {
  const sides = job.formes.map(bleedOf);
  const bleed = widest(sides);
  const around = margins(bleed, marks);
  const more = { width: 0, height: beyondMarks(marks) };
  const sheetOf = ({ size }: Forme): Size => grown(grown(size, around.marks), more);
  const press: Press = {
    stock: sheetOf(firstOf(job.formes)),
    turn: 'short-edge',
    work: 'single-side',
    marks,
  };
  const layOut = layer(job, press, bleed, around.marks);
  const copies = { across: 1, up: 1 };
  const { size } = firstOf(job.formes);
  return planned(
    { ...job, weight: marks.weight },
    {
      sheet: sheetOf(firstOf(job.formes)),
      copies,
      needed: { trims: size, bleeds: grown(size, around.bleeds), marks: grown(size, around.marks) },
      turnAxis: 'vertical',
      work: workOf(press),
      sheetOf,
      placedOn: (forme) => placeCopies(forme, copies, sheetOf(forme), press, around.marks),
      layOut: (forme, number) => layOut(forme, number, sheetOf(forme), copies),
    },
  );
}

/** The pieces of all copies of a forme, from trim to trim. */
const piecesIn = (placed: readonly PlacedForme[]): Box[] =>
  placed.flatMap((each) => {
    const matrix = onSheet(each);
    return piecesOf(each.forme).map((box) => applyToBox(matrix, box));
  });

/** How the forme on a sheet is folded. Where it lies there once and is not cut out, the whole paper is folded. */
function foldingsOn(
  forme: Forme,
  number: number,
  { sheet, copies, press, around }: { sheet: Size; copies: Across; press: Press; around: Size },
): SheetFolding[] {
  const alone = copies.across * copies.up === 1;
  return (forme.foldings ?? []).map((folding): SheetFolding => {
    let { pattern } = folding;
    for (let turn = 0; turn < (press.turned ?? 0); turn += 90) pattern = turnedPattern(pattern);
    const cutFirst = folding.cutFirst || !alone;
    if (!cutFirst) {
      const { x, y } = firstOf(placeCopies(forme, copies, sheet, press, around));
      const { width, height } = laid(forme.size, press);
      pattern = {
        columns: widened(pattern.columns, x, sheet.width - x - width),
        rows: widened(pattern.rows, y, sheet.height - y - height),
        folds: pattern.folds,
      };
    }
    return { ...folding, sheet: number + 1, pattern, cutFirst };
  });
}
/** Lengths of which the first and the last reach so much further. */
export const widened = (lengths: readonly number[], before: number, behind: number): number[] =>
  lengths.map((length, n) => length + (n ? 0 : before) + (n === lengths.length - 1 ? behind : 0));

interface Laid extends Pick<SheetPlan, 'sheet' | 'copies' | 'needed' | 'turnAxis' | 'work'> {
  layOut: (forme: Forme, number: number, byHand?: FaceChanges) => Sheet;
  sheetOf: (forme: Forme) => Size;
  placedOn: (forme: Forme) => PlacedForme[];
  foldings?: (forme: Forme, number: number) => readonly SheetFolding[];
  byHand?: readonly ByHand[];
}

function planned(
  { formes, pages, cell, blanksAdded, piecesPerForme = 1, creep, weight, together, grid, pieceArea }: ToPrint,
  { layOut, copies, byHand, foldings, sheetOf, placedOn, ...laidOut }: Laid,
): SheetPlan {
  let folded: readonly SheetFolding[] | undefined;
  let faces: ReadonlyMap<string, number> | undefined;
  let worked: (Partial<HandResult> & { sheets: readonly Sheet[] }) | undefined;
  const work = () => {
    const sheets = formes.map((forme, number) => layOut(forme, number));
    return byHand
      ? changeByHand(sheets, byHand, (n, changes) => layOut(entryAt(formes, n), n, changes))
      : { sheets };
  };
  return {
    ...laidOut,
    copies,
    cell,
    pages,
    blanksAdded,
    sheetCount: formes.length,
    get sheets() {
      return (worked ??= work()).sheets;
    },
    ...(byHand ? {} : { lay: (index: number) => layOut(entryAt(formes, index), index) }),
    get faces() {
      return (faces ??= facesOn(formes, laidOut.work === 'single-side'));
    },
    piecesOn: (index) => piecesIn(placedOn(entryAt(formes, index))),
    laidOn: (index) => laidFormes(placedOn(entryAt(formes, index))),
    foldedFrom: (index) => entryAt(formes, index).foldings ?? [],
    sheetSize: (index) => sheetOf(entryAt(formes, index)),
    get foldings() {
      return (folded ??= foldings ? formes.flatMap(foldings) : []);
    },
    get hand() {
      return byHand && ((worked ??= work()) as HandResult);
    },
    ...(weight === undefined ? {} : { weight }),
    ...(creep ? { creep } : {}),
    ...(grid ? { grid } : {}),
    piecesPerSheet: copies.across * copies.up * piecesPerForme,
    pieceArea:
      pieceArea ??
      (together
        ? formes.reduce((sum, forme) => sum + areaOf(forme), 0)
        : areaOf(firstOf(formes)) / piecesPerForme),
  };
}

/** On how many slots each page lies, by its id; where one side is printed, those behind are not. */
function facesOn(formes: readonly Forme[], oneSide: boolean): ReadonlyMap<string, number> {
  const faces = new Map<string, number>();
  for (const { slots } of formes)
    for (const { front, back } of slots)
      for (const face of oneSide ? [front] : [front, back]) {
        const id = face?.planned.page?.id;
        if (id !== undefined) faces.set(id, (faces.get(id) ?? 0) + 1);
      }
  return faces;
}

/** How much paper a forme's pieces are, in square points. */
const areaOf = ({ slots }: Forme): number =>
  slots.reduce((sum, { box }) => sum + widthOf(box) * heightOf(box), 0);

/** What sheets alike share. */
interface Shared {
  slots: readonly PlacedSlot[];
  front: readonly SheetLine[];
  back: readonly SheetLine[];
  clear: readonly Box[];
}

/** Lays formes on sheets. Places and lines are worked out once for all sheets whose slots lie alike. */
function layer({ formes, job }: ToPrint, press: Press, bleed: Sides, around: Size) {
  const known = new Map<object, Shared>();
  const single = workOf(press) === 'single-side';
  return (forme: Forme, number: number, sheet: Size, copies: Across, byHand?: FaceChanges): Sheet => {
    const axis = turnAxisOf(press, sheet);
    const room: MarkRoom = { bleed, printed: printedBox(sheet, press), settings: press.marks };
    const placed = placeCopies(forme, copies, sheet, press, around);
    const work = (): Shared => {
      const slots = slotsOnSheet(placed);
      const front = linesOf(placed, slots, room);
      return {
        slots,
        front,
        back: linesBehind(front, sheet, backMatrix(sheet, axis)),
        clear: keptClear(slots, bleed),
      };
    };
    const key = forme.like ?? forme;
    const shared = known.get(key) ?? work();
    known.set(key, shared);
    const say = { job, number: number + 1, of: formes.length, ...(forme.name ? { name: forme.name } : {}) };
    const sideOf = (side: 'front' | 'back') => ({
      cells: cellsOf(side, forme, shared.slots, sheet, axis, byHand?.[side]),
      lines: shared[side],
      ...marginMarks({ placed, side, sheet, axis, clear: shared.clear, lines: shared[side], room, say }),
    });
    return {
      size: sheet,
      front: sideOf('front'),
      ...(single ? {} : { back: sideOf('back') }),
      ...(forme.name ? { name: forme.name } : {}),
    };
  };
}

const turnedSides = (sides: Sides, press: Press): Sides =>
  isSideways(press) ? { left: sides.foot, right: sides.head, head: sides.left, foot: sides.right } : sides;
