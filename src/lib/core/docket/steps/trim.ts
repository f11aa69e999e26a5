import * as z from 'zod';
import { sideOf } from '../../pages/page';
import { contentSchema, fixedPointSchema, resizePage } from '../../pages/resize';
import { resolveSelection, selectionSchema } from '../../pages/selection';
import { defineStep } from '../stepKind';
import { pageLength } from '../../measure/pageLength';
import { stepBase } from './base';

/** Sets the trim size of pages. */
export const trim = defineStep({
  kind: 'trim',
  schema: z.object({
    ...stepBase,
    kind: z.literal('trim'),
    pages: selectionSchema,
    width: pageLength,
    height: pageLength,
    content: contentSchema,
    fixed: fixedPointSchema,
  }),
  apply(list, step) {
    const picked = new Set(resolveSelection(step.pages, list));
    const size = { width: step.width, height: step.height };
    const pages = list.pages.map((page, index) =>
      picked.has(index) ? resizePage(page, size, step.content, step.fixed, sideOf(index, list.book)) : page,
    );
    return { ...list, pages };
  },
});
