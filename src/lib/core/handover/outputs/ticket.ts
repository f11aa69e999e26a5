import * as z from 'zod';
import { cut } from '../parts';
import { outputBase } from '../split';
import { defineOutput } from './outputKind';

/** One A4 page that goes with the work. */
export const ticket = defineOutput(z.object({ ...outputBase, kind: z.literal('ticket') }))({
  kind: 'ticket',
  tellsFindings: true,
  isWorded: true,
  extension: () => 'pdf',
  possible: () => true,
  fresh: () => ({ kind: 'ticket' }),
  parts: () => cut([0], undefined, () => 1),
});
