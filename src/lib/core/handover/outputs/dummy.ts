import * as z from 'zod';
import { keysOf } from '../../entries';
import { DUMMY_PAPERS } from '../../finish/dummy';
import { canBeProved } from '../../finish/intended';
import { cut } from '../parts';
import { outputBase } from '../split';
import { defineOutput } from './outputKind';

/** The sheets made small enough for an office printer, to be folded by hand. */
export const dummy = defineOutput(
  z.object({ ...outputBase, kind: z.literal('dummy'), paper: z.enum(keysOf(DUMMY_PAPERS)) }),
)({
  kind: 'dummy',
  isForReading: () => true,
  isWorded: true,
  extension: () => 'pdf',
  possible: ({ plan, docket: { scheme } }) => plan !== undefined && canBeProved(scheme),
  fresh: () => ({ kind: 'dummy', paper: 'A4' }),
  parts: () => cut([0], undefined, () => 1),
});
