import * as z from 'zod';
import { onPages, textAtSchema } from '../../numbers/lines';
import { defineStep } from '../stepKind';
import { stepBase } from './base';
import { putLines } from './putLines';

/** Puts a folio on pages, at one place of the leaf. */
export const folio = defineStep({
  kind: 'folio',
  schema: z.object({ ...stepBase, kind: z.literal('folio'), ...onPages, ...textAtSchema.shape }),
  apply: (list, { edge, across, text, left, first, ...step }) =>
    putLines(list, step, [{ edge, across, text, left, first }]),
});
