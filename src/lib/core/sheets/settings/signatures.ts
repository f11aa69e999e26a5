import * as z from 'zod';
import { distance } from '../../measure/lengthSchema';
import { coverSchema, creepSchema, pressFields } from '../scheme';

/** *Signatures*: folded sheets gathered one after another, glued or sewn. */
export const signaturesSchema = z.object({
  kind: z.literal('signatures'),
  ...pressFields,
  signature: z.literal([4, 8, 16, 32]),
  /** What is left for the last signature makes smaller ones, or is filled up with blanks. */
  last: z.enum(['smaller', 'blanks']),
  pad: z.enum(['before-last', 'end']),
  /** Taken off the spine of a glued book, on each page. */
  roughing: distance,
  cutOff: distance,
  /** Bars that step down the spines, so that a signature out of order shows. */
  collating: z.boolean(),
  creep: creepSchema.optional(),
  /** What the thread of a sewn book adds between one signature and the next. */
  thread: distance.optional(),
  /** How a cover is printed, where the book has one; as PLAIN_COVER where left out. */
  cover: coverSchema.optional(),
});
export type Signatures = z.infer<typeof signaturesSchema>;
