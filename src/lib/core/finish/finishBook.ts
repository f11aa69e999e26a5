import { bounds, heightOf, shift, widthOf, type Box, type Size } from '../measure/box';
import { applyToBox, quarters, turnMatrix, type Turn } from '../measure/matrix';
import { edgesOf, FoldError, foldSheet } from '../fold/fold';
import type { Pattern } from '../fold/patterns';
import type { Spine } from '../model/page';
import type { FlatFolding, SheetPlan } from '../sheets/plan';
import { widened } from '../sheets/press';
import { doneAlike } from './doneAlike';
import type { Finish, ToFinish } from './toFinish';
import { foldOperations } from './folds';
import type { CoverFace, Operation, OperationOf } from './operations';
import { cutApart, placedOn, roomAround } from './pieces';
import { wantedOf } from './wanted';
import { entryAt, firstOf } from '../entries';

/** A sheet of a book as it comes from the folder, its head up. */
interface FoldedSheet {
  sheet: number;
  before: (OperationOf<'cut'> | OperationOf<'cut-out'>)[];
  fold: OperationOf<'fold'>;
  /** The trim of its leaves in it. */
  leaf: Box;
  /** It is a leaf by itself, tipped in. */
  tippedIn: boolean;
  /** It is cut to its trims before it is folded: nothing is left to be trimmed. */
  exact: boolean;
}

/** What lies beyond the trim at the spine of a folded sheet, and at the edge at which folded sheets are jogged: the head, or the left if bound at the head. */
function beyond({ leaf, fold: { closed } }: FoldedSheet, spine: Spine): { from: number; inside: number } {
  if (spine === 'head') return { from: closed.height - leaf.y1, inside: leaf.x0 };
  return { from: spine === 'left' ? leaf.x0 : closed.width - leaf.x1, inside: closed.height - leaf.y1 };
}

/** Folds the sheets of a book, lays them together, binds and trims them. */
export const finishBook: Finish = (job) => {
  const { plan, scheme, list } = job;
  const { spine } = list.book;
  const folded = foldedSheets(plan);
  const bound = folded.filter(({ tippedIn }) => !tippedIn);
  const lays = bound.map((each) => ({ sheet: each.sheet, inside: beyond(each, spine).inside }));
  const stitched = !('roughing' in scheme);
  const from = bound.length ? beyond(firstOf(bound), spine).from : 0;
  const roughing = 'roughing' in scheme && bound.length ? scheme.roughing : 0;
  const thread = 'thread' in scheme ? scheme.thread : undefined;
  const how = stitched ? 'stitch' : thread || !scheme.roughing ? 'sew' : 'glue';
  const together: Operation[] = stitched
    ? [{ kind: 'nest', spine, sheets: lays }]
    : [{ kind: 'gather', spine, sheets: lays }, ...tippedIn(job, folded, from)];
  const isTrimmed = folded.some(({ exact }) => !exact);
  const { cell } = plan;
  const along = from - roughing;
  const size: Size =
    spine === 'head'
      ? { width: cell.width, height: cell.height + along }
      : { width: cell.width + along, height: cell.height };
  const inside = lays[0]?.inside ?? 0;
  return {
    reads: 'bound',
    operations: [
      ...doneAlike(folded.flatMap(({ before }) => before)),
      ...doneAlike(folded.map(({ fold }) => fold)),
      ...together,
      { kind: 'bind', how, spine, roughing },
      ...coverOperations(job),
      ...(isTrimmed ? [{ kind: 'trim', spine, size, inside } as const] : []),
      {
        kind: 'count',
        products: [{ product: 1, size, each: plan.copies.across * plan.copies.up, ...wantedOf(job) }],
      },
    ],
  };
};

/** The sheets of a book, folded: whole ones as they come from the press, if each carries the work once; else they are cut apart first. */
function foldedSheets(plan: SheetPlan): FoldedSheet[] {
  const indexes = Array.from({ length: plan.sheetCount }, (_, index) => index);
  const isWhole = (index: number) =>
    plan.laidOn(index).length === 1 && !firstOf(plan.foldedFrom(index)).cutFirst;
  if (indexes.every(isWhole)) return plan.foldings.map((folding, index) => foldedWhole(plan, folding, index));
  // One distance for all sheets, so that their heads lie in one line.
  const room = Math.min(...indexes.map((index) => roomAround(placedOn(plan, index), plan.sheetSize(index))));
  return indexes.map((index) => foldedApart(plan, index, room));
}

/** A sheet folded as it comes from the press, then turned so that its head is up. */
function foldedWhole(plan: SheetPlan, { pattern }: Pick<FlatFolding, 'pattern'>, index: number): FoldedSheet {
  const laid = firstOf(plan.laidOn(index));
  const { leaf } = firstOf(plan.foldedFrom(index));
  return folded(index + 1, [], pattern, applyToBox(laid.matrix, leaf!), quarters(-laid.turn));
}

/** A sheet whose pieces are cut out with so much room around them, then folded head up. */
function foldedApart(plan: SheetPlan, index: number, room: number): FoldedSheet {
  const { pattern, cutFirst, leaf, of } = firstOf(plan.foldedFrom(index));
  const around = cutFirst ? 0 : room;
  const placed = placedOn(plan, index);
  const before = cutApart(index + 1, plan.sheetSize(index), placed, around);
  const wide = {
    ...pattern,
    columns: widened(pattern.columns, around, around),
    rows: widened(pattern.rows, around, around),
  };
  const sheet = folded(index + 1, before, wide, shift(leaf!, around, around), 0);
  return { ...sheet, tippedIn: of !== undefined, exact: cutFirst };
}

function folded(
  sheet: number,
  before: FoldedSheet['before'],
  pattern: Pattern,
  leaf: Box,
  turn: Turn,
): FoldedSheet {
  const flat = { width: sumOf(pattern.columns), height: sumOf(pattern.rows) };
  const [closed, folds] = [closedOf(pattern, leaf), foldOperations({ pattern })];
  const matrix = turnMatrix(closed.piece, turn);
  const size = applyToBox(matrix, closed.piece);
  return {
    sheet,
    before,
    fold: {
      kind: 'fold',
      sheets: [sheet],
      size: flat,
      folds,
      turn,
      closed: { width: widthOf(size), height: heightOf(size) },
    },
    leaf: applyToBox(matrix, closed.leaf),
    tippedIn: false,
    exact: false,
  };
}

const sumOf = (lengths: readonly number[]): number => lengths.reduce((all, each) => all + each, 0);

/** The folded piece, and where a leaf's trim lies in it; as it lies flat if paper cannot fold so. */
function closedOf(pattern: Pattern, leaf: Box): { piece: Box; leaf: Box } {
  const [xs, ys] = [edgesOf(pattern.columns), edgesOf(pattern.rows)];
  const within = (edges: readonly number[], at: number) => edges.findIndex((edge) => edge > at) - 1;
  const [column, row] = [within(xs, (leaf.x0 + leaf.x1) / 2), within(ys, (leaf.y0 + leaf.y1) / 2)];
  const flat = { piece: { x0: 0, y0: 0, x1: sumOf(pattern.columns), y1: sumOf(pattern.rows) }, leaf };
  try {
    const stack = foldSheet(pattern, pattern.folds);
    const facet = stack.find((each) => each.column === column && each.row === row);
    // On a sheet that is too small the leaf lies outside of it.
    if (!facet) return flat;
    return { piece: bounds(stack.map(({ outline }) => outline)), leaf: applyToBox(facet.matrix, leaf) };
  } catch (error) {
    if (!(error instanceof FoldError)) throw error;
    return flat;
  }
}

/** Leaves with fold-outs, each glued in after those leaves of the block that come before it. */
function tippedIn(
  { plan, list }: ToFinish,
  folded: readonly FoldedSheet[],
  from: number,
): OperationOf<'tip-in'>[] {
  const leaves = leavesWithPanels(plan);
  return folded
    .filter((each) => each.tippedIn)
    .map((each, n) => ({
      kind: 'tip-in',
      spine: list.book.spine,
      sheet: each.sheet,
      after: entryAt(leaves, n),
      inside: beyond(each, list.book.spine).inside,
      from,
    }));
}

/** How many leaves come before each one with fold-outs: these follow the two pages of their leaf. */
function leavesWithPanels({ pages }: SheetPlan): number[] {
  const found = new Set<number>();
  let seen = 0;
  for (const { page } of pages)
    if (page?.panel) found.add(seen / 2 - 1);
    else seen++;
  return [...found];
}

/** The cover cut out of its sheet, with what the knife takes off with the block, creased and glued round it. */
function coverOperations({ plan, list }: ToFinish): Operation[] {
  const { cover } = plan;
  if (!cover) return [];
  const { spine } = list.book;
  const sheet = plan.sheetCount + 1;
  const [placed, size] = [placedOn(cover.plan, 0), cover.plan.sheetSize(0)];
  const room = roomAround(placed, size);
  const hasFlaps = cover.parts.some(({ part }) => part.endsWith('flap'));
  // Flaps end at their trim: no knife reaches them once the cover is on.
  const along = hasFlaps ? 0 : room;
  const parts = cover.parts.map(({ part, length }) => ({ part: part as CoverFace, length }));
  const edges = edgesOf(parts.map(({ length }) => length));
  return [
    ...cutApart(
      sheet,
      size,
      placed,
      spine === 'head' ? { across: room, up: along } : { across: along, up: room },
    ),
    {
      kind: 'cover',
      sheet,
      spine,
      parts,
      creases: edges.slice(1, -1).map((edge) => edge + along),
      before: along,
      inside: room,
    },
  ];
}
