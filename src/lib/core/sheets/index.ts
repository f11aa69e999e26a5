import { spotsOf, type InkStep } from '../pages/inks';
import type { PageList } from '../pages/page';
import type { Surveys } from '../pages/survey';
import { withCover } from './cover';
import { planFlat } from './flat';
import { planLeaflet } from './leaflet';
import { NO_JOB, type SheetPlan } from './plan';
import type { Scheme } from './scheme';
import { planSignatures } from './signatures';
import { planSingle, planSpreads } from './spreads';
import { planStitched } from './stitched';

/** What the sheets of a job hang on besides its pages. */
export interface SheetsJob {
  scheme: Scheme;
  title: string;
  safe: number;
  steps: readonly InkStep[];
}

/** The sheets of a job whose docket leads to the list. Undefined where there are no pages, or they go on no sheets. */
export function sheetsOf(list: PageList, docket: SheetsJob, surveys: Surveys): SheetPlan | undefined {
  const { scheme, title, safe } = docket;
  let spots: ReturnType<typeof spotsOf> | undefined;
  return planSheets(list, scheme, {
    title,
    safe,
    spots: () => (spots ??= spotsOf(list, surveys, docket)),
  });
}

/** Works out the sheets of a page list. Undefined where there are no pages, or they go on no sheets. */
export function planSheets(list: PageList, scheme: Scheme, job = NO_JOB): SheetPlan | undefined {
  switch (scheme.kind) {
    case 'stitched':
      return planStitched(list, scheme, job);
    case 'signatures':
      return withCover(planSignatures(list, scheme, job), list, scheme, job);
    case 'leaflet':
      return planLeaflet(list, scheme, job);
    case 'flat':
      return planFlat(list, scheme, job);
    case 'spreads':
      return planSpreads(list, scheme, job);
    case 'single':
      return planSingle(list, scheme, job);
    case 'none':
      return undefined;
  }
}
