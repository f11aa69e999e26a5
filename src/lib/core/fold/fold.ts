import { applyToBox, compose, IDENTITY, type Matrix } from '../measure/matrix';
import type { Box } from '../measure/box';

/** A blank sheet seen from its front: panel widths from left to right, heights from foot to head, in points. */
export interface FlatSheet {
  columns: readonly number[];
  rows: readonly number[];
}

/** One fold. `at` is in points on the *folded* piece as it lies, from the flat sheet's lower left corner. */
export interface Fold {
  axis: 'vertical' | 'horizontal';
  at: number;
  /** Which part moves, as seen: before the axis (left or lower) or after it (right or upper). */
  moves: 'before' | 'after';
  goes: 'over' | 'under';
}

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

/** A fold that paper cannot make: `fold` is its number from 0. */
export class FoldError extends Error {
  constructor(
    readonly code: 'through-panel' | 'nothing-moves',
    readonly fold: number,
    readonly at: number,
  ) {
    super(`${code}: fold ${fold + 1} at ${at}`);
  }
}

const TOUCH = 1e-6;

/**
 * Folds a sheet. Returns its facets from the top of the folded piece to the bottom. Each fold reflects the facets that
 * move and stacks them, upside down, over or under the rest. Throws FoldError where a fold would crease a panel or moves nothing.
 */
export function foldSheet(sheet: FlatSheet, folds: readonly Fold[]): Facet[] {
  return folds.reduce((stack, fold, number) => foldOnce(stack, fold, number), flatFacets(sheet));
}

function foldOnce(stack: readonly Facet[], fold: Fold, number: number): Facet[] {
  const [low, high] = fold.axis === 'vertical' ? (['x0', 'x1'] as const) : (['y0', 'y1'] as const);
  if (stack.some(({ outline }) => outline[low] < fold.at - TOUCH && outline[high] > fold.at + TOUCH))
    throw new FoldError('through-panel', number, fold.at);
  const isBefore = ({ outline }: Facet) => outline[high] <= fold.at + TOUCH;
  const moving = stack.filter((facet) => isBefore(facet) === (fold.moves === 'before'));
  const staying = stack.filter((facet) => !moving.includes(facet));
  if (!moving.length || !staying.length) throw new FoldError('nothing-moves', number, fold.at);
  const mirror: Matrix =
    fold.axis === 'vertical' ? [-1, 0, 0, 1, 2 * fold.at, 0] : [1, 0, 0, -1, 0, 2 * fold.at];
  const turned = moving.reverse().map((facet): Facet => ({
    ...facet,
    matrix: compose(facet.matrix, mirror),
    outline: applyToBox(mirror, facet.outline),
    up: facet.up === 'front' ? 'back' : 'front',
  }));
  return fold.goes === 'over' ? [...turned, ...staying] : [...staying, ...turned];
}

function flatFacets({ columns, rows }: FlatSheet): Facet[] {
  const edges = (lengths: readonly number[]) =>
    lengths.reduce((at, length) => [...at, at.at(-1)! + length], [0]);
  const [xs, ys] = [edges(columns), edges(rows)];
  return rows.flatMap((_, row) =>
    columns.map((_, column): Facet => ({
      column,
      row,
      matrix: IDENTITY,
      outline: { x0: xs[column]!, x1: xs[column + 1]!, y0: ys[row]!, y1: ys[row + 1]! },
      up: 'front',
    })),
  );
}
