import type { Turn } from '../measure/matrix';
import type { Facet } from './fold';

/** Where a page of the folded piece lies on the flat sheet. */
export interface Imposed {
  /** Page of the folded piece from 1: 1 is what looks up, 2 its back, 3 the top of the next facet down, and so on. */
  page: number;
  column: number;
  row: number;
  face: 'front' | 'back';
  /** How the page is turned on that face, the back being seen as turned over about a vertical axis. */
  turn: Turn;
}

/**
 * Numbers the pages of a folded stack (facets from top to bottom, as `foldSheet` gives them) and unfolds it: for each
 * page its panel, its face and its turn. The reader opens the piece about its left edge.
 */
export function impose(stack: readonly Facet[]): Imposed[] {
  return stack.flatMap((facet, depth): Imposed[] => {
    const { column, row, up } = facet;
    const down = up === 'front' ? 'back' : 'front';
    const turn = headDown(facet) ? 180 : 0;
    return [
      { page: 2 * depth + 1, column, row, face: up, turn },
      { page: 2 * depth + 2, column, row, face: down, turn },
    ];
  });
}

/** Folds about vertical and horizontal axes only mirror: a panel's head ends up or down, never sideways. */
const headDown = (facet: Facet): boolean => facet.matrix[3] < 0;
