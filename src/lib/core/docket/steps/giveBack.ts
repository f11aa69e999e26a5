import * as z from 'zod';
import type { Page } from '../../model/page';
import { takeOff } from '../../pages/panels';
import { indexOfPlace, insertPages, placeSchema } from '../../select/place';
import { resolveSelection } from '../../select/selection';
import { selectionSchema } from '../../model/selection';
import { defineStep, StepProblem } from '../stepKind';
import { stepBase } from './base';

/** Takes panels off their leaves and puts what they show back into the list; faces that were made blank for a panel go. */
export const giveBack = defineStep(
  z.object({ ...stepBase, kind: z.literal('give-back'), pages: selectionSchema, where: placeSchema }),
)({
  kind: 'give-back',
  on: 'pages',
  key: 'b',
  button: false,
  fresh: ({ list, chosen, indexes }) => {
    const hung = indexes.some((index) => index >= list.pages.length);
    return { kind: 'give-back', pages: chosen && hung ? chosen : 'panels', where: { at: 'end' } };
  },
  apply(list, step) {
    const selected = new Set(resolveSelection(step.pages, list));
    const { rest, off } = takeOff(selected, list);
    if (!off.length) throw new StepProblem('no-panels');
    const back = off.flatMap(({ panel, ...page }): Page[] => (page.id.startsWith(panel!.id) ? [] : [page]));
    return insertPages(rest, indexOfPlace(step.where, list), back);
  },
});
