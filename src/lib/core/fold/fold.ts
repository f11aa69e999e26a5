import { overlap, type Box } from '../measure/box';
import { applyToBox, compose, IDENTITY, turnOver, type Matrix } from '../measure/matrix';
import { entryAt, firstOf, foundIn, lastOf } from '../entries';
import { TOLERANCES } from '../measure/tolerances';

/** A blank sheet seen from its front: panel widths from left to right, heights from foot to head, in points. */
export interface FlatSheet {
  columns: readonly number[];
  rows: readonly number[];
}

export type Axis = 'vertical' | 'horizontal';

/** One fold. `at` is in points on the *folded* piece as it lies, from the flat sheet's lower left corner. */
export interface Fold {
  axis: Axis;
  at: number;
  /** Which part moves, as seen: before the axis (left or lower) or after it (right or upper). */
  moves: 'before' | 'after';
  goes: 'over' | 'under';
  /** How many layers of that part move, counted from the side that it goes to; all of them where left out. */
  layers?: number;
}

/** The same, its place said by a border between panels of the flat sheet, counted from 1 from the left or the foot. */
export type BorderFold = Omit<Fold, 'at'> & { border: number };

/** A panel between folds, in its place in the folded piece. */
export interface Facet {
  column: number;
  row: number;
  /** From its place on the flat sheet to its place in the folded piece. */
  matrix: Matrix;
  /** Its outline in the folded piece. */
  outline: Box;
  /** Which face of the sheet looks up. */
  up: 'front' | 'back';
}

/** Two panels side by side on the flat sheet, and the fold (from 0) between them; undefined while they lie flat. */
interface Joint {
  a: number;
  b: number;
  /** The axis that their border is parallel to. */
  axis: Axis;
  fold?: number;
}

/** A sheet being folded. */
export interface Folded {
  /** From the top of the piece to the bottom. */
  stack: readonly Facet[];
  joints: readonly Joint[];
}

export type FoldErrorCode = 'through-panel' | 'too-wide' | 'nothing-moves' | 'tears' | 'no-border';

/**
 * A fold that paper cannot make: `fold` is its number from 0, `at` its place. `too-wide` says by how much (`by`, in points) a
 * panel that was folded in reaches over the line; `panel` is its column or row, from 1.
 */
export class FoldError extends Error {
  constructor(
    readonly code: FoldErrorCode,
    readonly fold: number,
    readonly at: number,
    readonly by = 0,
    readonly panel = 0,
  ) {
    super(`${code}: fold ${fold + 1} at ${at}`);
  }
}
const LOW = { vertical: 'x0', horizontal: 'y0' } as const;
const HIGH = { vertical: 'x1', horizontal: 'y1' } as const;

/** Folds a sheet; its facets from the top of the folded piece to the bottom. Throws FoldError. */
export const foldSheet = (sheet: FlatSheet, folds: readonly (Fold | BorderFold)[]): readonly Facet[] =>
  lastOf(foldStates(sheet, folds)).stack;

/** The sheet flat, then as it lies after each fold. Throws FoldError if paper cannot do what is asked. */
export function foldStates(sheet: FlatSheet, folds: readonly (Fold | BorderFold)[]): Folded[] {
  const states = [flat(sheet)];
  folds.forEach((fold, number) => states.push(foldOnce(entryAt(states, number), fold, number)));
  return states;
}

/** The folds with their places on the piece as it lies before each. Throws FoldError. */
export function foldPlaces(sheet: FlatSheet, folds: readonly BorderFold[]): Fold[] {
  const states = foldStates(sheet, folds);
  return folds.map(({ border, ...fold }, number) => ({
    ...fold,
    at: placeOf({ ...fold, border }, entryAt(states, number), number),
  }));
}

/** Where a border of the flat sheet lies in a piece, if all that is left of it lies in one line; throws FoldError. */
function placeOf({ axis, border }: BorderFold, { stack, joints }: Folded, number: number): number {
  const index = axis === 'vertical' ? 'column' : 'row';
  const before = stack.filter((facet) => facet[index] === border - 1);
  const open = joints.filter(
    (joint) =>
      joint.axis === axis && joint.fold === undefined && facetAt(stack, joint.a)[index] === border - 1,
  );
  if (!before.length || !open.length) throw new FoldError('no-border', number, border);
  return laterEdge(facetAt(stack, firstOf(open).a), axis);
}

/**
 * Folds a piece once more. Each fold reflects the facets that move and stacks them, upside down, over or under the rest; since
 * only outer layers move, and none that are joined to others elsewhere, paper never runs through paper.
 */
function foldOnce(piece: Folded, given: Fold | BorderFold, number: number): Folded {
  const at = 'at' in given ? given.at : placeOf(given, piece, number);
  const fold: Fold = { ...given, at };
  const [low, high] = [LOW[fold.axis], HIGH[fold.axis]];
  const { stack } = piece;
  const isBefore = ({ outline }: Facet) => outline[high] <= at + TOLERANCES.sum;
  const isAfter = ({ outline }: Facet) => outline[low] >= at - TOLERANCES.sum;
  const moves = fold.moves === 'before' ? isBefore : isAfter;
  const outer = fold.goes === 'over' ? stack : [...stack].reverse();
  const part = outer.filter((facet) => moves(facet) || crosses(facet, fold.axis, at));
  const limit = fold.layers === undefined ? part.length : layersDeep(part, fold.layers);
  const asked = part.slice(0, limit);
  const through = asked.find((facet) => crosses(facet, fold.axis, at));
  if (through) throw throughPanel(piece, through, fold, number);
  const moving = new Set(asked);
  if (!moving.size || moving.size === stack.length) throw new FoldError('nothing-moves', number, at);
  const mirror = turnOver(fold.axis, at);
  const turned = stack
    .filter((facet) => moving.has(facet))
    .reverse()
    .map((facet): Facet => ({
      ...facet,
      matrix: compose(facet.matrix, mirror),
      outline: applyToBox(mirror, facet.outline),
      up: facet.up === 'front' ? 'back' : 'front',
    }));
  const staying = stack.filter((facet) => !moving.has(facet));
  const folded = fold.goes === 'over' ? [...turned, ...staying] : [...staying, ...turned];
  const movingIds = new Set([...moving].map(idOf));
  const joints = piece.joints.map((joint) => {
    if (movingIds.has(joint.a) === movingIds.has(joint.b)) return joint;
    const a = facetAt(stack, joint.a);
    // Panels that part must be joined at the line itself, and lie flat there.
    if (
      joint.axis !== fold.axis ||
      joint.fold !== undefined ||
      Math.abs(laterEdge(a, joint.axis) - at) > TOLERANCES.sum
    )
      throw new FoldError('tears', number, at);
    return { ...joint, fold: number };
  });
  return { stack: folded, joints };
}

/** How many facets of a part, counted from its outside, make up so many layers anywhere in it. */
function layersDeep(part: readonly Facet[], layers: number): number {
  const over = (n: number) =>
    part.slice(0, n).filter((facet) => overlap(facet.outline, entryAt(part, n).outline)).length;
  const first = part.findIndex((_, n) => over(n) >= layers);
  return first < 0 ? part.length : first;
}

/** What goes through a panel: one that was folded in and is too wide for its place, or any other. */
function throughPanel(piece: Folded, facet: Facet, { axis, at }: Fold, number: number): FoldError {
  const folded = piece.joints.some(
    (joint) => joint.fold !== undefined && joint.axis === axis && [joint.a, joint.b].includes(idOf(facet)),
  );
  const by = Math.min(at - facet.outline[LOW[axis]], facet.outline[HIGH[axis]] - at);
  const panel = (axis === 'vertical' ? facet.column : facet.row) + 1;
  return new FoldError(folded ? 'too-wide' : 'through-panel', number, at, by, panel);
}

const crosses = ({ outline }: Facet, axis: Axis, at: number): boolean =>
  outline[LOW[axis]] < at - TOLERANCES.sum && outline[HIGH[axis]] > at + TOLERANCES.sum;

/** Columns and rows are never as many as this. */
const MOST = 1000;
/** What tells a panel from the others of its sheet. */
export const idOf = ({ column, row }: { column: number; row: number }): number => row * MOST + column;

const facetAt = (stack: readonly Facet[], id: number): Facet => foundIn(stack, (facet) => idOf(facet) === id);

/** Where the edge of a panel lies in the folded piece that is its right or upper one on the flat sheet. */
function laterEdge({ outline, matrix }: Facet, axis: Axis): number {
  const mirrored = (axis === 'vertical' ? matrix[0] : matrix[3]) < 0;
  return outline[mirrored ? LOW[axis] : HIGH[axis]];
}

function flat({ columns, rows }: FlatSheet): Folded {
  const [xs, ys] = [edgesOf(columns), edgesOf(rows)];
  const stack = rows.flatMap((_, row) =>
    columns.map((_, column): Facet => ({
      column,
      row,
      matrix: IDENTITY,
      outline: {
        x0: entryAt(xs, column),
        x1: entryAt(xs, column + 1),
        y0: entryAt(ys, row),
        y1: entryAt(ys, row + 1),
      },
      up: 'front',
    })),
  );
  const joints = stack.flatMap(({ column, row }): Joint[] => [
    ...(column + 1 < columns.length
      ? [{ a: idOf({ column, row }), b: idOf({ column: column + 1, row }), axis: 'vertical' as const }]
      : []),
    ...(row + 1 < rows.length
      ? [{ a: idOf({ column, row }), b: idOf({ column, row: row + 1 }), axis: 'horizontal' as const }]
      : []),
  ]);
  return { stack, joints };
}

/** The edges of lengths laid one after another, from 0. */
export const edgesOf = (lengths: readonly number[]): number[] =>
  lengths.reduce((at, length) => [...at, lastOf(at) + length], [0]);
