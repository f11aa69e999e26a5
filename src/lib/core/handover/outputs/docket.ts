import * as z from 'zod';
import { cut } from '../parts';
import { outputBase } from '../split';
import { defineOutput } from './outputKind';

/** The steps of the job as JSON. */
export const docket = defineOutput(z.object({ ...outputBase, kind: z.literal('docket') }))({
  kind: 'docket',
  isForReading: () => true,
  extension: () => 'docket.json',
  possible: () => true,
  fresh: () => ({ kind: 'docket' }),
  parts: () => cut([0], undefined, () => 1),
});
