import * as z from 'zod';
import { resolveSelection, selectionSchema } from '../../pages/selection';
import { defineStep } from '../stepKind';
import { stepBase } from './base';

/** Takes pages out of the list, and panels by either of their faces; their sources stay. */
export const remove = defineStep({
  kind: 'remove',
  schema: z.object({ ...stepBase, kind: z.literal('remove'), pages: selectionSchema }),
  apply(list, step) {
    const gone = new Set(resolveSelection(step.pages, list));
    const pages = list.pages.filter((_, index) => !gone.has(index));
    if (!list.panels) return { ...list, pages };
    const off = new Set(
      list.panels.flatMap(({ panel }, n) => (gone.has(list.pages.length + n) ? [panel!.id] : [])),
    );
    return { ...list, pages, panels: list.panels.filter(({ panel }) => !off.has(panel!.id)) };
  },
});
