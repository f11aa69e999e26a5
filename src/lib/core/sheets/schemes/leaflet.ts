import * as z from 'zod';
import { patternSchema } from '../../fold/patterns';
import { lengthWithin, pageLength } from '../../measure/lengthSchema';
import { mm } from '../../measure/unit';
import { pagesPerLeaflet, planLeaflet } from '../leaflet';
import { MOST_ALLOWANCE, PLAIN_PRESS, pressFields } from '../scheme';
import { defineScheme } from './schemeKind';

/** *Leaflet*: one sheet folded in any way; pages are its two whole sides, or single panels. */
const schema = z.object({
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
export type Leaflet = z.infer<typeof schema>;

export const leaflet = defineScheme(schema)({
  kind: 'leaflet',
  makes: 'folded',
  plain: { ...PLAIN_PRESS, kind: 'leaflet', pattern: { fold: 'letter' }, pages: 'sides', allowance: mm(2) },
  plan: planLeaflet,
  /** As many pages as it has panels are its panels. */
  suited(plain, { pages }) {
    const panels = { ...plain, pages: 'panels' as const };
    return pages.length && pages.length % pagesPerLeaflet(panels) === 0 ? { scheme: panels } : {};
  },
});
