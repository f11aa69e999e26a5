import { intersect, sizeBox } from '../measure/box';
import { applyToBox } from '../measure/matrix';
import { bleedBox, type Page, type Side } from '../pages/page';
import type { Surface } from './surface';

/** A page by itself, with its bleed; the origin is the trim's lower left corner. */
export function pageSurface(page: Page, side: Side): Surface {
  const bleed = bleedBox(page, side);
  const { art } = page;
  const items: Surface['items'] = art
    ? [
        {
          kind: 'art',
          source: art.source,
          index: art.index,
          matrix: art.place,
          clip: intersect(bleed, applyToBox(art.place, art.reach)),
        },
      ]
    : [];
  return { media: bleed, bleed, trim: sizeBox(page.trim), items };
}
