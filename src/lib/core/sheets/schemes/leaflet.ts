import { mm } from '../../measure/unit';
import { pagesPerLeaflet, planLeaflet } from '../leaflet';
import { PLAIN_PRESS } from '../scheme';
import { leafletSchema } from '../settings/leaflet';
import { defineScheme } from './schemeKind';

export const leaflet = defineScheme(leafletSchema)({
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
