import type { Box } from '../../measure/box';
import { applyToBox } from '../../measure/matrix';
import { onSheet, type PlacedForme, type PlacedSlot } from '../forme';
import type { Axis } from './markKind';

/** A straight edge on a sheet: at `at` across its axis, from one end to the other along it. */
interface Edge {
  axis: Axis;
  at: number;
  from: number;
  to: number;
}

/** The edges of pieces that are cut: those at a fold are not. */
export const cutEdges = (slots: readonly PlacedSlot[]): Edge[] =>
  slots.flatMap(({ box: { x0, x1, y0, y1 }, folded = [] }) =>
    (
      [
        { side: 'left', axis: 'vertical', at: x0, from: y0, to: y1 },
        { side: 'right', axis: 'vertical', at: x1, from: y0, to: y1 },
        { side: 'foot', axis: 'horizontal', at: y0, from: x0, to: x1 },
        { side: 'head', axis: 'horizontal', at: y1, from: x0, to: x1 },
      ] as const
    ).filter(({ side }) => !folded.includes(side)),
  );

/** The folds of formes as they lie on their sheet, each a box without width or without height. */
export const foldLines = (placed: readonly PlacedForme[]): Box[] =>
  placed.flatMap(({ forme, ...place }) => {
    const matrix = onSheet({ forme, ...place });
    return forme.folds.map(({ axis, at, from, to }) =>
      applyToBox(
        matrix,
        axis === 'vertical' ? { x0: at, x1: at, y0: from, y1: to } : { x0: from, x1: to, y0: at, y1: at },
      ),
    );
  });
