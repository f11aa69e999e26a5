import { intersect, sizeBox, type Box, type Size } from '../measure/box';
import { applyToBox, compose, translate, turnMatrix, type Matrix } from '../measure/matrix';
import { foldSheet } from '../fold/fold';
import { impose, nestedPage, type Imposed } from '../fold/impose';
import { commonestSize } from '../pages/sizes';
import { labelsOf } from '../pages/labels';
import { bleedBox, bleedSides, frontSide, type Page, type PageList, type Side } from '../pages/page';
import type { Cell, PlannedPage, Sheet, SheetLine, SheetPlan, SheetSide } from './plan';
import { MARK_LENGTH, MARK_OFFSET, type Stitched } from './scheme';

const PAGES_PER_SHEET = 4;

/**
 * Plans a stitched booklet: sheets folded once, nested. The layout comes from folding a blank sheet of two panels,
 * one under the other so that the fold lies at the spine, numbering the closed stack and unfolding it. Undefined for an empty list.
 */
export function planStitched(list: PageList, scheme: Stitched): SheetPlan | undefined {
  const cell = commonestSize(list.pages);
  if (!cell) return undefined;
  const pages = padded(list, scheme);
  const count = pages.length / PAGES_PER_SHEET;
  const panel = cell.width + scheme.gap / 2;
  const layout = impose(
    foldSheet({ columns: [panel, panel], rows: [cell.height] }, [
      { axis: 'vertical', at: panel, moves: list.book.spine === 'left' ? 'before' : 'after', goes: 'under' },
    ]),
  );
  const needed = neededSize(pages, cell, scheme);
  const sheet = layStock(scheme.stock, needed.trims);
  const turnAxis = (scheme.turn === 'short-edge') === sheet.width >= sheet.height ? 'vertical' : 'horizontal';
  const lines = linesOf(cell, sheet, needed, scheme);
  const bench: Bench = {
    cell,
    sheet,
    scheme,
    turnAxis,
    lines,
    origin: { x: (sheet.width - needed.trims.width) / 2, y: (sheet.height - cell.height) / 2 },
  };
  const layOutSheet = (index: number): Sheet => {
    const placed = layout.map((place) => ({
      place,
      page: pages[nestedPage(place.page, index, count, PAGES_PER_SHEET) - 1]!,
    }));
    return { front: layOut('front', placed, bench), back: layOut('back', placed, bench) };
  };
  let sheets: Sheet[] | undefined;
  return {
    sheet,
    cell,
    needed,
    pages,
    blanksAdded: pages.length - list.pages.length,
    sheetCount: count,
    get sheets() {
      return (sheets ??= Array.from({ length: count }, (_, index) => layOutSheet(index)));
    },
    turnAxis,
  };
}

/** How many blanks fill the last sheet. */
export const blanksWanted = (pageCount: number): number =>
  (PAGES_PER_SHEET - (pageCount % PAGES_PER_SHEET)) % PAGES_PER_SHEET;

/** The pages with the blanks that fill the last sheet. Page 1 of a stitched booklet is the front of a leaf, whatever the list says. */
function padded(list: PageList, scheme: Stitched): PlannedPage[] {
  const labels = labelsOf(list.pages);
  const front = frontSide(list.book);
  const pages: { page?: Page; label: string }[] = list.pages.map((page, index) => ({
    page,
    label: labels[index]!,
  }));
  const blanks = Array.from({ length: blanksWanted(pages.length) }, () => ({ label: '' }));
  pages.splice(scheme.pad === 'end' ? pages.length : pages.length - 1, 0, ...blanks);
  return pages.map((page, index): PlannedPage => ({
    ...page,
    position: index + 1,
    side: index % 2 === 0 ? front : front === 'right' ? 'left' : 'right',
  }));
}

interface Bench {
  cell: Size;
  sheet: Size;
  scheme: Stitched;
  turnAxis: SheetPlan['turnAxis'];
  lines: readonly SheetLine[];
  /** Lower left corner of the left cell's trim on the front. */
  origin: { x: number; y: number };
}

function layOut(
  face: 'front' | 'back',
  placed: readonly { place: Imposed; page: PlannedPage }[],
  bench: Bench,
): SheetSide {
  const upsideDown = face === 'back' && bench.turnAxis === 'horizontal';
  const whole: Matrix = upsideDown ? turnMatrix(sizeBox(bench.sheet), 180) : translate(0, 0);
  const cells = placed
    .filter(({ place }) => place.face === face)
    .map(({ place, page }) => toCell(face, place, page, bench, whole))
    .sort((a, b) => a.trim.x0 - b.trim.x0);
  return { cells, lines: bench.lines };
}

function toCell(
  face: 'front' | 'back',
  place: Imposed,
  page: PlannedPage,
  bench: Bench,
  whole: Matrix,
): Cell {
  const { cell, origin, scheme } = bench;
  const columnAsSeen = face === 'front' ? place.column : 1 - place.column;
  const slot = { x: origin.x + columnAsSeen * (cell.width + scheme.gap), y: origin.y };
  const size = page.page?.trim ?? cell;
  // A page of another size stands at the spine and at the head, where binding and the reader's eye align it.
  const inSlot = { x: page.side === 'right' ? 0 : cell.width - size.width, y: cell.height - size.height };
  const turned = compose(turnMatrix(sizeBox(cell), place.turn), translate(slot.x, slot.y));
  const matrix = compose(compose(translate(inSlot.x, inSlot.y), turned), whole);
  const trim = applyToBox(matrix, sizeBox(size));
  const art = page.page ? bleedBox(page.page, page.side) : sizeBox(size);
  const clip = applyToBox(matrix, intersect(art, roomFor(page.side, size, scheme.gap, bench)));
  return { ...page, trim, clip, turn: upsideDownTurn(place.turn, whole), matrix };
}

/** In page space: as far as a page's bleed may reach. At the spine it stops half way to the facing page. */
function roomFor(side: Side, size: Size, gap: number, { sheet }: Bench): Box {
  const room = {
    x0: -sheet.width,
    x1: size.width + sheet.width,
    y0: -sheet.height,
    y1: size.height + sheet.height,
  };
  return side === 'right' ? { ...room, x0: -gap / 2 } : { ...room, x1: size.width + gap / 2 };
}

const upsideDownTurn = (turn: Cell['turn'], whole: Matrix): Cell['turn'] =>
  whole[0] < 0 ? (((turn + 180) % 360) as Cell['turn']) : turn;

/**
 * Trim marks at the four outer corners, fold marks and the fold itself between the two pages. They stand alike on every
 * sheet, clear of the widest bleed of all, and in the same places on front and back.
 */
function linesOf(cell: Size, sheet: Size, needed: SheetPlan['needed'], scheme: Stitched): SheetLine[] {
  const { trims, bleeds } = needed;
  const [left, foot] = [(sheet.width - trims.width) / 2, (sheet.height - cell.height) / 2];
  const [right, head, fold] = [left + trims.width, foot + cell.height, sheet.width / 2];
  const [aside, above] = [
    Math.max(MARK_OFFSET, (bleeds.width - trims.width) / 2),
    Math.max(MARK_OFFSET, (bleeds.height - trims.height) / 2),
  ];
  const lines: SheetLine[] = [{ kind: 'fold', x0: fold, x1: fold, y0: foot, y1: head }];
  const upright = (kind: SheetLine['kind'], x: number) =>
    lines.push(
      { kind, x0: x, x1: x, y0: foot - above - MARK_LENGTH, y1: foot - above },
      { kind, x0: x, x1: x, y0: head + above, y1: head + above + MARK_LENGTH },
    );
  if (scheme.marks.trim) {
    [left, right].forEach((x) => upright('trim-mark', x));
    for (const y of [foot, head])
      lines.push(
        { kind: 'trim-mark', x0: left - aside - MARK_LENGTH, x1: left - aside, y0: y, y1: y },
        { kind: 'trim-mark', x0: right + aside, x1: right + aside + MARK_LENGTH, y0: y, y1: y },
      );
  }
  if (scheme.marks.fold) upright('fold-mark', fold);
  return lines;
}

/** Lays the stock so that the spread fits: its long side along the spread's long side. */
const layStock = (stock: Size, spread: Size): Size => {
  const [short, long] = [Math.min(stock.width, stock.height), Math.max(stock.width, stock.height)];
  return spread.width >= spread.height ? { width: long, height: short } : { width: short, height: long };
};

function neededSize(pages: readonly PlannedPage[], cell: Size, scheme: Stitched): SheetPlan['needed'] {
  const trims = { width: 2 * cell.width + scheme.gap, height: cell.height };
  const most = { fore: 0, head: 0, foot: 0 };
  for (const { page, side } of pages) {
    if (!page) continue;
    const sides = bleedSides(page.bleed, side);
    most.fore = Math.max(most.fore, side === 'right' ? sides.right : sides.left);
    most.head = Math.max(most.head, sides.head);
    most.foot = Math.max(most.foot, sides.foot);
  }
  const grown = (fore: number, head: number, foot: number): Size => ({
    width: trims.width + 2 * fore,
    height: trims.height + 2 * Math.max(head, foot),
  });
  const mark = (edge: number, wanted: boolean) => (wanted ? Math.max(edge, MARK_OFFSET) + MARK_LENGTH : edge);
  const { trim, fold } = scheme.marks;
  const bleeds = grown(most.fore, most.head, most.foot);
  return {
    trims,
    bleeds,
    marks: grown(mark(most.fore, trim), mark(most.head, trim || fold), mark(most.foot, trim || fold)),
  };
}
