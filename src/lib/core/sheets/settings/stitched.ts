import * as z from 'zod';
import { distance } from '../../measure/lengthSchema';
import { creepSchema, pressFields } from '../scheme';

/** Folded sheets nested in each other, wire-stitched through the fold. Lengths in points. */
export const stitchedSchema = z.object({
  kind: z.literal('stitched'),
  ...pressFields,
  /** Space between the two pages at the fold, half on each side. */
  gap: distance,
  /** Where blanks go that fill the last sheet. */
  pad: z.enum(['before-last', 'end']),
  /** Pages a folded sheet has. */
  signature: z.literal([4, 8, 16, 32]).optional(),
  /** Off the head, foot and fore edge of a sheet folded more than once. */
  cutOff: distance.optional(),
  creep: creepSchema.optional(),
});
export type Stitched = z.infer<typeof stitchedSchema>;
