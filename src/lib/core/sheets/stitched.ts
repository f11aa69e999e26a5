import type { Size } from '../measure/box';
import { foldSheet } from '../fold/fold';
import { impose, nestedPage, type Imposed } from '../fold/impose';
import { labelsOf } from '../pages/labels';
import { addressesOf, panelsOf } from '../pages/panels';
import { commonestSize } from '../pages/sizes';
import {
  backSide,
  bleedSides,
  edgesOf,
  frontSide,
  type Page,
  type PageList,
  type Side,
  type Spine,
} from '../pages/page';
import type { PlannedPage, Sheet, SheetLine, SheetPlan } from './plan';
import { MARK_LENGTH, MARK_OFFSET, type Stitched } from './scheme';
import {
  alongOf,
  isAfter,
  layOut,
  linesOf,
  turnedOver,
  type Along,
  type Bench,
  type Segment,
  type Strip,
} from './strip';

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
  const labels = labelsOf(list);
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
