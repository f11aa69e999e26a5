import * as z from 'zod';
import { isMeasured } from '../../pages/drawn';
import { straightened } from '../../pages/straighten';
import { resolveSelection } from '../../select/selection';
import { selectionSchema } from '../../model/selection';
import { defineStep, StepProblem } from '../stepKind';
import { entryAt } from '../../entries';
import { pagesOnly, stepBase } from './base';

/** Sets scans straight by what was measured on them, and ends them where their paper does. */
export const straighten = defineStep(
  z.object({
    ...stepBase,
    kind: z.literal('straighten'),
    pages: selectionSchema,
    by: z.number().min(-45).max(45).optional(),
    toPaper: z.boolean(),
    alike: z.boolean(),
  }),
)({
  kind: 'straighten',
  on: 'pages',
  key: 'T',
  button: true,
  fresh: ({ chosen = 'all' }) => ({ kind: 'straighten', pages: chosen, toPaper: true, alike: true }),
  looksAtPages: () => true,
  apply(list, step, { surveys }) {
    const selected = pagesOnly(resolveSelection(step.pages, list), list);
    const scans = selected.map((index) => entryAt(list.pages, index));
    const unknown = scans.findIndex((scan) => !isMeasured(scan, surveys));
    if (unknown >= 0) throw new StepProblem('not-measured', { position: entryAt(selected, unknown) + 1 });
    const straight = straightened(scans, surveys, step);
    const made = new Map(selected.map((index, n) => [index, entryAt(straight, n)]));
    return { ...list, pages: list.pages.map((page, index) => made.get(index) ?? page) };
  },
});
