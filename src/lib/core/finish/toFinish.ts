import type { PageList } from '../model/page';
import type { SheetPlan } from '../sheets/plan';
import type { Scheme } from '../sheets/schemes';
import type { FinishPlan } from './operations';

/** What a finishing plan follows from. */
export interface ToFinish {
  list: PageList;
  plan: SheetPlan;
  scheme: Scheme;
}
/** What is done once the sheets are printed, and how what comes out is read. */
export type Finish = (job: ToFinish) => Pick<FinishPlan, 'operations'> & Pick<FinishPlan['made'], 'reads'>;
