import { grow, intersect, sizeBox, type Size } from '../measure/box';
import { applyToBox, compose, translate, turnMatrix, type Matrix, type Turn } from '../measure/matrix';
import { foldSheet } from '../fold/fold';
import { impose, nestedPage, type Imposed } from '../fold/impose';
import { labelsOf } from '../pages/labels';
import { addressesOf, panelsOf } from '../pages/panels';
import { commonestSize } from '../pages/sizes';
import {
  backSide,
  bleedBox,
  bleedSides,
  edgesOf,
  frontSide,
  sidesOf,
  spineAt,
  type Page,
  type PageList,
  type Side,
  type Spine,
} from '../pages/page';
import type { Cell, PlannedPage, Sheet, SheetLine, SheetPlan } from './plan';
import { MARK_LENGTH, MARK_OFFSET, type Stitched } from './scheme';

const PAGES_PER_SHEET = 4;

/**
 * Plans a stitched booklet: sheets folded once, nested. The layout comes from folding a blank sheet of two halves, one
 * under the other so that the fold lies at the spine, numbering the closed stack and unfolding it. Fold-out panels make
 * their sheet a longer strip. Undefined for an empty list.
 */
export function planStitched(list: PageList, scheme: Stitched): SheetPlan | undefined {
  const cell = commonestSize(list.pages);
  if (!cell) return undefined;
  const pages = padded(list, scheme);
  const leaves = leavesOf(pages, list, cell);
  const count = leaves.length / 2;
  const { spine } = list.book;
  const layout = foldedOnce(spine, cell, scheme.gap);
  const strips = Array.from({ length: count }, (_, sheet): Strip => {
    const places = layout.map((place) => ({
      place,
      leaf: leaves[Math.ceil(nestedPage(place.page, sheet, count, PAGES_PER_SHEET) / 2) - 1]!,
    }));
    const reach = (after: boolean) =>
      Math.max(
        ...places.filter(({ place }) => isAfter(place, spine) === after).map(({ leaf }) => lengthOf(leaf)),
      ) +
      scheme.gap / 2;
    return { places, before: reach(false), after: reach(true) };
  });
  const needed = neededSize(leaves.flat(), strips, cell, spine, scheme);
  const sheet = layStock(scheme.stock, needed.trims);
  const turnAxis = (scheme.turn === 'short-edge') === sheet.width >= sheet.height ? 'vertical' : 'horizontal';
  const bench: Bench = { cell, sheet, scheme, spine, turnAxis, needed };
  const known = new Map<string, readonly SheetLine[]>();
  /** Lines are made once for all sides that share them. */
  const linesAt = (along: Along): readonly SheetLine[] => {
    const key = [...along.folds, ...along.ends].join();
    const lines = known.get(key) ?? linesOf(along, bench);
    known.set(key, lines);
    return lines;
  };
  const layOutSheet = (strip: Strip): Sheet => {
    const along = alongOf(strip, bench);
    return {
      front: { cells: layOut('front', strip, along.spine, bench), lines: linesAt(along) },
      back: { cells: layOut('back', strip, along.spine, bench), lines: linesAt(turnedOver(along, bench)) },
    };
  };
  let sheets: Sheet[] | undefined;
  return {
    sheet,
    cell,
    needed,
    pages: leaves.flat().flatMap(({ front, back }) => [front, back]),
    blanksAdded: pages.length - list.pages.length,
    sheetCount: count,
    get sheets() {
      return (sheets ??= strips.map(layOutSheet));
    },
    turnAxis,
  };
}

/** How many blanks fill the last sheet. */
export const blanksWanted = (pageCount: number): number =>
  (PAGES_PER_SHEET - (pageCount % PAGES_PER_SHEET)) % PAGES_PER_SHEET;

/** A blank sheet folded at the spine, so that its second half lies under the first. */
function foldedOnce(spine: Spine, cell: Size, gap: number): Imposed[] {
  if (spine === 'head') {
    const half = cell.height + gap / 2;
    const sheet = { columns: [cell.width], rows: [half, half] };
    return impose(foldSheet(sheet, [{ axis: 'horizontal', at: half, moves: 'after', goes: 'under' }]));
  }
  const half = cell.width + gap / 2;
  const sheet = { columns: [half, half], rows: [cell.height] };
  const moves = spine === 'left' ? 'before' : 'after';
  return impose(foldSheet(sheet, [{ axis: 'vertical', at: half, moves, goes: 'under' }]));
}

/** The pages with the blanks that fill the last sheet. Page 1 of a stitched booklet is the front of a leaf, whatever the list says. */
function padded(list: PageList, scheme: Stitched): PlannedPage[] {
  const labels = labelsOf(list.pages);
  const pages: { page?: Page; label: string }[] = list.pages.map((page, index) => ({
    page,
    label: labels[index]!,
  }));
  const blanks = Array.from({ length: blanksWanted(pages.length) }, () => ({ label: '' }));
  pages.splice(scheme.pad === 'end' ? pages.length : pages.length - 1, 0, ...blanks);
  return pages.map((page, index): PlannedPage => ({
    ...page,
    position: index + 1,
    name: String(index + 1),
    side: index % 2 === 0 ? frontSide(list.book) : backSide(list.book),
  }));
}

/** A leaf or a panel on it: its two faces and its length from fold to fold or to its trim. */
interface Segment {
  front: PlannedPage;
  back: PlannedPage;
  length: number;
}

/** Every leaf as its segments from the spine outwards. */
function leavesOf(pages: readonly PlannedPage[], list: PageList, cell: Size): Segment[][] {
  const along = (page: Page | undefined) =>
    page ? (list.book.spine === 'head' ? page.trim.height : page.trim.width) : 0;
  const addresses = addressesOf(list);
  const at = new Map(pages.flatMap(({ page, position }) => (page ? [[page.id, position]] : [])));
  const panels = panelsOf(list).map((panel) => ({
    ...panel,
    at: Math.ceil(at.get(panel.front.panel!.on)! / 2) - 1,
  }));
  let position = pages.length;
  const planned = (page: Page, side: Side): PlannedPage => ({
    page,
    position: ++position,
    name: addresses.get(page.id)!,
    label: page.label ?? '',
    side,
  });
  return Array.from({ length: pages.length / 2 }, (_, leaf): Segment[] => {
    const [front, back] = [pages[2 * leaf]!, pages[2 * leaf + 1]!];
    const hanging = panels.filter((panel) => panel.at === leaf);
    // A leaf with a panel ends at its fold; one without is trimmed with all others.
    const own = hanging.length ? Math.max(along(front.page), along(back.page)) : 0;
    const length = own || (list.book.spine === 'head' ? cell.height : cell.width);
    return [
      { front, back, length },
      ...hanging.map((panel): Segment => ({
        front: planned(panel.front, frontSide(list.book)),
        back: planned(panel.back, backSide(list.book)),
        length: Math.max(along(panel.front), along(panel.back)),
      })),
    ];
  });
}

const lengthOf = (leaf: readonly Segment[]): number => leaf.reduce((sum, { length }) => sum + length, 0);

/** One sheet: where folding puts each of its pages, the leaf that lies there, and how far it reaches on both sides of the spine. */
interface Strip {
  places: readonly { place: Imposed; leaf: readonly Segment[] }[];
  before: number;
  after: number;
}

interface Bench {
  cell: Size;
  sheet: Size;
  scheme: Stitched;
  spine: Spine;
  turnAxis: SheetPlan['turnAxis'];
  needed: SheetPlan['needed'];
}

/** Whether a place lies to the right of the spine fold, or above it, as the front is seen. */
const isAfter = ({ column, row }: Imposed, spine: Spine): boolean => (spine === 'head' ? row : column) === 1;

/** Places along a strip, from the left edge of the sheet side, or from its foot where the spine is at the head. */
interface Along {
  spine: number;
  folds: readonly number[];
  ends: readonly [number, number];
}

/** The places along a strip as the front is seen: it lies in the middle of the sheet. */
function alongOf({ places, before, after }: Strip, { sheet, spine, scheme }: Bench): Along {
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
function turnedOver(along: Along, { sheet, spine, turnAxis }: Bench): Along {
  const head = spine === 'head';
  if (head === (turnAxis === 'vertical')) return along;
  const over = (at: number) => (head ? sheet.height : sheet.width) - at;
  return {
    spine: over(along.spine),
    folds: along.folds.map(over).reverse(),
    ends: [over(along.ends[1]), over(along.ends[0])],
  };
}

function layOut(face: 'front' | 'back', { places }: Strip, fold: number, bench: Bench): Cell[] {
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
function linesOf(
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

/** Lays the stock so that the spread fits: its long side along the spread's long side. */
const layStock = (stock: Size, spread: Size): Size => {
  const [short, long] = [Math.min(stock.width, stock.height), Math.max(stock.width, stock.height)];
  return spread.width >= spread.height ? { width: long, height: short } : { width: short, height: long };
};

function neededSize(
  segments: readonly Segment[],
  strips: readonly Strip[],
  cell: Size,
  spine: Spine,
  scheme: Stitched,
): SheetPlan['needed'] {
  const longest = Math.max(...strips.map(({ before, after }) => before + after));
  const lie = (along: number, cross: number): Size =>
    spine === 'head' ? { width: cross, height: along } : { width: along, height: cross };
  const cross = spine === 'head' ? cell.width : cell.height;
  let [fore, side] = [0, 0];
  for (const { page, side: lies } of segments.flatMap(({ front, back }) => [front, back])) {
    if (!page) continue;
    const edges = edgesOf(bleedSides(page.bleed, lies), lies);
    fore = Math.max(fore, edges.fore);
    side = Math.max(side, edges.head, edges.foot);
  }
  const mark = (edge: number, wanted: boolean) => (wanted ? Math.max(edge, MARK_OFFSET) + MARK_LENGTH : edge);
  const { trim, fold } = scheme.marks;
  return {
    trims: lie(longest, cross),
    bleeds: lie(longest + 2 * fore, cross + 2 * side),
    marks: lie(longest + 2 * mark(fore, trim), cross + 2 * mark(side, trim || fold)),
  };
}
