import * as z from 'zod';
import { pressFields, RUNS_OF_CELLS, START_CORNERS } from '../scheme';

/**
 * *Flat*: pieces side by side, cut apart. *repeat*: a sheet for each piece, all its cells alike. *sequence*: piece after piece
 * from cell to cell. *stack*: piles of cut sheets, laid on one another, are in order. *gang*: pieces by the amounts wanted.
 */
export const flatSchema = z.object({
  kind: z.literal('flat'),
  ...pressFields,
  arrange: z.enum(['repeat', 'sequence', 'stack', 'gang']),
  goes: z.enum(RUNS_OF_CELLS),
  start: z.enum(START_CORNERS),
});
export type Flat = z.infer<typeof flatSchema>;
