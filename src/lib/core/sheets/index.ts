import type { PageList } from '../pages/page';
import type { SheetPlan } from './plan';
import type { Scheme } from './scheme';
import { planStitched } from './stitched';

/** Every scheme by its kind; a new scheme is one new file and one line here. */
const SCHEMES = { stitched: planStitched };

/** Works out the sheets of a page list. Undefined where there are no pages. */
export const planSheets = (list: PageList, scheme: Scheme): SheetPlan | undefined =>
  SCHEMES[scheme.kind](list, scheme);
