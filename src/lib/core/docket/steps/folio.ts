import * as z from 'zod';
import { onPages } from './putLines';
import { textAtSchema } from '../../model/lines';
import { defineStep } from '../stepKind';
import { stepBase } from './base';
import { putLines, plainLines } from './putLines';

/** Puts a folio on pages, at one place of the leaf. */
export const folio = defineStep(
  z.object({ ...stepBase, kind: z.literal('folio'), ...onPages, ...textAtSchema.shape }),
)({
  kind: 'folio',
  on: 'numbers',
  key: 'i',
  button: true,
  fresh: (begun) => ({ ...plainLines(begun), kind: 'folio', edge: 'foot', across: 'outer', text: '{page}' }),
  apply: (list, { edge, across, text, left, first, ...step }) =>
    putLines(list, step, [{ edge, across, text, left, first }]),
});
