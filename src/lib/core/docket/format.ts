import * as z from 'zod';
import { bleedArtSchema } from './shapes';
import { bleedEdges, marginsSchema, sizeSchema } from './shapes';

/** A named set of trim size, bleed and margins with columns. What it leaves out, pages keep. Lengths in points. */
export const formatSchema = z.object({
  id: z.string().min(1).max(64),
  name: z.string().trim().min(1).max(60),
  trim: sizeSchema.optional(),
  bleed: z.object({ ...bleedEdges, art: bleedArtSchema.optional() }).optional(),
  margins: marginsSchema.optional(),
});
export type Format = z.infer<typeof formatSchema>;
