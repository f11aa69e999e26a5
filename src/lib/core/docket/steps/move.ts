import * as z from 'zod';
import { settleSeries } from '../../numbers/series';
import { indexOfPlace, placeSchema } from '../../select/place';
import { resolveSelection } from '../../select/selection';
import { selectionSchema } from '../../model/selection';
import { defineStep, StepProblem } from '../stepKind';
import { pagesOnly, stepBase } from './base';
import { firstOf, lastOf } from '../../entries';

/** Moves pages, in the order they have, to another place. A place beside one of the moved pages themselves is refused. */
export const move = defineStep(
  z.object({ ...stepBase, kind: z.literal('move'), pages: selectionSchema, where: placeSchema }),
)({
  kind: 'move',
  on: 'pages',
  key: 'g',
  button: true,
  fresh: ({ chosen = 'last' }) => ({ kind: 'move', pages: chosen, where: { at: 'end' } }),
  apply(list, step) {
    const selected = new Set(pagesOnly(resolveSelection(step.pages, list), list));
    if ('pages' in step.where) {
      const anchors = resolveSelection(step.where.pages, list);
      const anchor = step.where.at === 'before' ? firstOf(anchors) : lastOf(anchors);
      if (selected.has(anchor)) throw new StepProblem('into-itself', { position: anchor + 1 });
    }
    const index = indexOfPlace(step.where, list);
    const moved = list.pages.filter((_, i) => selected.has(i));
    const before = list.pages.filter((_, i) => i < index && !selected.has(i));
    const after = list.pages.filter((_, i) => i >= index && !selected.has(i));
    // A series that begins at a page that leaves its place begins at the next one.
    const { series } = settleSeries(list, { ...list, pages: [...before, ...after] });
    return { ...list, pages: [...before, ...moved, ...after], ...(series ? { series } : {}) };
  },
});
