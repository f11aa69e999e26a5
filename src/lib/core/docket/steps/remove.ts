import * as z from 'zod';
import { takeOff } from '../../pages/panels';
import { resolveSelection } from '../../select/selection';
import { selectionSchema } from '../../model/selection';
import { defineStep } from '../stepKind';
import { stepBase } from './base';

/** Takes pages out of the list, and panels by either of their faces; their sources stay. */
export const remove = defineStep(
  z.object({ ...stepBase, kind: z.literal('remove'), pages: selectionSchema }),
)({
  kind: 'remove',
  on: 'pages',
  key: 'Delete',
  button: true,
  fresh: ({ chosen = 'last' }) => ({ kind: 'remove', pages: chosen }),
  possible: ({ chosen }) => !!chosen,
  apply(list, step) {
    const gone = new Set(resolveSelection(step.pages, list));
    return { ...takeOff(gone, list).rest, pages: list.pages.filter((_, index) => !gone.has(index)) };
  },
});
