import * as z from 'zod';
import type { Page } from '../../pages/page';
import { indexOfPlace, insertPages, placeSchema } from '../../pages/place';
import { resolveSelection, selectionSchema } from '../../pages/selection';
import { defineStep, StepProblem } from '../stepKind';
import { stepBase } from './base';

/** Takes panels off their leaves and puts what they show back into the list; faces that were made blank for a panel go. */
export const giveBack = defineStep({
  kind: 'give-back',
  schema: z.object({ ...stepBase, kind: z.literal('give-back'), pages: selectionSchema, where: placeSchema }),
  apply(list, step) {
    const picked = new Set(resolveSelection(step.pages, list));
    const faces = list.panels ?? [];
    const off = new Set(
      faces.flatMap(({ panel }, n) => (picked.has(list.pages.length + n) ? [panel!.id] : [])),
    );
    if (!off.size) throw new StepProblem('no-panels');
    const back = faces.flatMap((face): Page[] => {
      const { panel, ...page } = face;
      return off.has(panel!.id) && !page.id.startsWith(panel!.id) ? [page] : [];
    });
    const rest = { ...list, panels: faces.filter(({ panel }) => !off.has(panel!.id)) };
    return insertPages(rest, indexOfPlace(step.where, list), back);
  },
});
