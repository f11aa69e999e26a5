import * as z from 'zod';
import { leaveRoom } from '../../pages/margins';
import { withOwn } from '../../pages/page';
import type { Page, Side } from '../../model/page';
import { selectionSchema } from '../../model/selection';
import { defineStep, StepProblem } from '../stepKind';
import { changePages, stepBase } from './base';
import { marginsSchema, PLAIN_MARGINS, COLUMN_GAP } from '../shapes';

/** Sets the margins of pages, from the trim inwards, and the columns between them. */
export const margins = defineStep(
  z.object({
    ...stepBase,
    kind: z.literal('margins'),
    pages: selectionSchema,
    ...marginsSchema.shape,
  }),
)({
  kind: 'margins',
  on: 'pages',
  key: 'm',
  button: true,
  fresh: ({ list, chosen = 'all', indexes }) => {
    const { margins: edges = PLAIN_MARGINS, columns } = list.pages[indexes[0] ?? 0] ?? {};
    return {
      kind: 'margins',
      pages: chosen,
      ...edges,
      columns: columns?.count ?? 1,
      gap: columns?.gap ?? COLUMN_GAP,
    };
  },
  apply: (list, step) =>
    changePages(list, step.pages, (page, side) => withOwn(withMargins(page, step, side), 'margins')),
});

/** The page with margins and columns. Throws StepProblem if they leave no column. */
export function withMargins(page: Page, of: z.infer<typeof marginsSchema>, side: Side): Page {
  const { head, foot, spine, fore, columns, gap } = of;
  const set = { ...page, margins: { head, foot, spine, fore }, columns: { count: columns, gap } };
  if (!leaveRoom(set, side)) throw new StepProblem('no-column');
  return set;
}
