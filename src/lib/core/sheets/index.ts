import type { PageList } from '../pages/page';
import { withCover } from './cover';
import { planFlat } from './flat';
import { planLeaflet } from './leaflet';
import type { SheetPlan } from './plan';
import type { Scheme } from './scheme';
import { planSignatures } from './signatures';
import { planSingle, planSpreads } from './spreads';
import { planStitched } from './stitched';

/** Works out the sheets of a page list; `title` is the job's, for slug lines. Undefined where there are no pages, or they go on no sheets. */
export function planSheets(list: PageList, scheme: Scheme, title = ''): SheetPlan | undefined {
  switch (scheme.kind) {
    case 'stitched':
      return planStitched(list, scheme, title);
    case 'signatures':
      return withCover(planSignatures(list, scheme, title), list, scheme, title);
    case 'leaflet':
      return planLeaflet(list, scheme, title);
    case 'flat':
      return planFlat(list, scheme, title);
    case 'spreads':
      return planSpreads(list, scheme, title);
    case 'single':
      return planSingle(list, scheme, title);
    case 'none':
      return undefined;
  }
}
