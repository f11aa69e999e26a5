import * as z from 'zod';
import { resolveSelection } from '../../select/selection';
import { selectionSchema } from '../../model/selection';
import { seriesShape, type Series } from '../../model/series';
import { seriesOf } from '../../numbers/series';
import { defineStep, StepProblem } from '../stepKind';
import { stepBase } from './base';
import { entryAt, firstOf } from '../../entries';

/** A number series as a step says it: it begins at the first page that `from` picks. */
export const seriesFromSchema = z.object({ from: selectionSchema, ...seriesShape });
export type SeriesFrom = z.infer<typeof seriesFromSchema>;

/** Divides the page list into number series, in place of all there were. Throws StepProblem if two begin at one page. */
export const numbers = defineStep(
  z.object({
    ...stepBase,
    kind: z.literal('numbers'),
    series: z.array(seriesFromSchema).min(1).max(200),
  }),
)({
  kind: 'numbers',
  on: 'numbers',
  key: '#',
  button: true,
  single: true,
  fresh: ({ list }) => ({ kind: 'numbers', series: seriesOf(list) }),
  apply(list, step) {
    const begins = new Map<number, Series>();
    for (const { from, ...series } of step.series) {
      const index = firstOf(resolveSelection(from, list));
      if (index >= list.pages.length) throw new StepProblem('series-at-panel');
      if (begins.has(index)) throw new StepProblem('series-overlap', { position: index + 1 });
      begins.set(index, { ...series, at: entryAt(list.pages, index).id });
    }
    const series = [...begins].sort(([a], [b]) => a - b).map(([, each]) => each);
    return { ...list, series };
  },
});
