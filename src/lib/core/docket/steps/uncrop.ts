import * as z from 'zod';
import { uncropPage } from '../../pages/crop';
import { selectionSchema } from '../../model/selection';
import { defineStep } from '../stepKind';
import { changePages, stepBase } from './base';

/** Brings back what was cropped away. */
export const uncrop = defineStep(
  z.object({ ...stepBase, kind: z.literal('uncrop'), pages: selectionSchema }),
)({
  kind: 'uncrop',
  on: 'pages',
  key: 'u',
  button: true,
  fresh: ({ list, chosen }) => ({
    kind: 'uncrop',
    pages: chosen ?? { ids: list.pages.filter(({ whole }) => whole).map(({ id }) => id) },
  }),
  possible: ({ list, indexes }) =>
    list.pages.some(({ whole }, index) => whole && (!indexes.length || indexes.includes(index))),
  apply: (list, step) => changePages(list, step.pages, uncropPage),
});
