import { spotsOf, type InkStep } from '../numbers/jobInks';
import type { PageList } from '../model/page';
import type { Surveys } from '../model/survey';
import type { SheetPlan } from './plan';
import { planSheets, type Scheme } from './schemes';

export { planSheets } from './schemes';

/** What the sheets of a job hang on besides its pages. */
export interface SheetsJob {
  scheme: Scheme;
  title: string;
  safe: number;
  steps: readonly InkStep[];
}

/** The sheets of a job whose docket leads to the list. Undefined if there are no pages, or they go on no sheets. */
export function sheetsOf(list: PageList, docket: SheetsJob, surveys: Surveys): SheetPlan | undefined {
  const { scheme, title, safe } = docket;
  let spots: ReturnType<typeof spotsOf> | undefined;
  return planSheets(list, scheme, {
    title,
    safe,
    spots: () => (spots ??= spotsOf(list, surveys, docket)),
  });
}
