import * as z from 'zod';
import { resolveSelection, selectionSchema } from '../../pages/selection';
import { defineStep } from '../stepKind';
import { stepBase } from './base';

/** Takes pages out of the list; their sources stay. */
export const remove = defineStep({
  kind: 'remove',
  schema: z.object({ ...stepBase, kind: z.literal('remove'), pages: selectionSchema }),
  apply(list, step) {
    const gone = new Set(resolveSelection(step.pages, list));
    return { ...list, pages: list.pages.filter((_, index) => !gone.has(index)) };
  },
});
