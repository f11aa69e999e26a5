import type { PageList } from '../pages/page';
import type { SheetPlan } from './plan';
import type { Scheme } from './scheme';
import { planStitched } from './stitched';

/** Works out the sheets of a page list. Undefined where there are no pages, or they go on no sheets. */
export function planSheets(list: PageList, scheme: Scheme): SheetPlan | undefined {
  switch (scheme.kind) {
    case 'stitched':
      return planStitched(list, scheme);
    case 'none':
      return undefined;
  }
}
