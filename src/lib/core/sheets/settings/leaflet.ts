import * as z from 'zod';
import { patternSchema } from '../../fold/patterns';
import { lengthWithin, pageLength } from '../../measure/lengthSchema';
import { MOST_ALLOWANCE, pressFields } from '../scheme';

/** *Leaflet*: one sheet folded in any way; pages are its two whole sides, or single panels. */
export const leafletSchema = z.object({
  kind: z.literal('leaflet'),
  ...pressFields,
  pattern: patternSchema,
  pages: z.enum(['sides', 'panels']),
  /** Which side of the folded piece the first pages are: the front of the sheet is its outside. */
  first: z.enum(['outside', 'inside']).optional(),
  /** The panels' widths from the left of the front, where they are not to be worked out. */
  widths: z.array(pageLength).max(16).optional(),
  /** How much narrower a panel is made because it folds inside another. */
  allowance: lengthWithin([0, MOST_ALLOWANCE]),
});
export type Leaflet = z.infer<typeof leafletSchema>;
