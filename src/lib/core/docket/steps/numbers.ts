import * as z from 'zod';
import { resolveSelection } from '../../select/selection';
import { selectionSchema } from '../../model/selection';
import { seriesShape, type Series } from '../../model/series';
import { numberedFrom, seriesOf } from '../../numbers/series';
import { defineStep, StepProblem, type Beginning } from '../stepKind';
import { stepBase } from './base';
import { entryAt, firstOf } from '../../entries';

/** All series with one more that begins with 1 at the first page selected; undefined where none is, or one begins there. */
function seriesFrom({ list, indexes }: Pick<Beginning, 'list' | 'indexes'>): SeriesFrom[] | undefined {
  const page = list.pages[indexes[0] ?? 0];
  if (!page || !indexes[0] || list.series?.some(({ at }) => at === page.id)) return undefined;
  return numberedFrom(list, page.id, '1');
}

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
  fresh: (begun) => ({ kind: 'numbers', series: seriesFrom(begun) ?? seriesOf(begun.list) }),
  extended: (step, begun) => ({ ...step, series: seriesFrom(begun) ?? step.series }),
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
