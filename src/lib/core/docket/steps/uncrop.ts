import * as z from 'zod';
import { uncropPage } from '../../pages/crop';
import { selectionSchema } from '../../pages/selection';
import { defineStep } from '../stepKind';
import { changePages, stepBase } from './base';

/** Brings back what was cropped away. */
export const uncrop = defineStep({
  kind: 'uncrop',
  schema: z.object({ ...stepBase, kind: z.literal('uncrop'), pages: selectionSchema }),
  apply: (list, step) => changePages(list, step.pages, uncropPage),
});
