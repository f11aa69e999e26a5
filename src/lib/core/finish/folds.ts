import { mostLayers } from '../fold/creases';
import { FoldError, foldPlaces, foldStates } from '../fold/fold';
import { bounds, heightOf, widthOf } from '../measure/box';
import type { FlatFolding } from '../sheets/plan';
import type { FoldOperation } from './operations';
import { entryAt } from '../entries';

const PART = {
  vertical: { before: 'left', after: 'right' },
  horizontal: { before: 'foot', after: 'head' },
} as const;

/** The folds of a sheet in their order; none if paper cannot make them, which is found elsewhere. */
export function foldOperations({ pattern }: Pick<FlatFolding, 'pattern'>): FoldOperation[] {
  try {
    const states = foldStates(pattern, pattern.folds);
    return foldPlaces(pattern, pattern.folds).map(({ axis, at, moves, goes }, n): FoldOperation => {
      const { stack } = entryAt(states, n);
      const whole = bounds(stack.map(({ outline }) => outline));
      const after = new Map(
        entryAt(states, n + 1).stack.map((facet) => [`${facet.column} ${facet.row}`, facet.up]),
      );
      const [low, high] = axis === 'vertical' ? (['x0', 'x1'] as const) : (['y0', 'y1'] as const);
      const part = stack.filter(
        ({ outline }) => (outline[low] + outline[high]) / 2 < at === (moves === 'before'),
      );
      const moved = stack.filter((facet) => after.get(`${facet.column} ${facet.row}`) !== facet.up);
      return {
        number: n + 1,
        axis,
        at: at - (axis === 'vertical' ? whole.x0 : whole.y0),
        piece: { width: widthOf(whole), height: heightOf(whole) },
        moves: PART[axis][moves],
        goes,
        layers: mostLayers(moved),
        there: mostLayers(part),
      };
    });
  } catch (error) {
    if (error instanceof FoldError) return [];
    throw error;
  }
}
