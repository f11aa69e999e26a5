import * as z from 'zod';
import { cut } from '../parts';
import { outputBase } from '../split';
import { defineOutput } from './outputKind';

/** What is done to the printed sheets, in order, as JSON. */
export const finishing = defineOutput(z.object({ ...outputBase, kind: z.literal('finishing') }))({
  kind: 'finishing',
  extension: () => 'finishing.json',
  possible: ({ plan }) => plan !== undefined,
  fresh: () => ({ kind: 'finishing' }),
  parts: () => cut([0], undefined, () => 1),
});
