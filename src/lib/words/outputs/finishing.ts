import { spoken } from '../language';
import { plural } from '../plural';
import { finishPlanOf } from '../../core/finish/finishPlan';
import type { OutputWords } from './outputWords';

export const finishing: OutputWords<'finishing'> = spoken({
  name: 'Finishing plan',
  said: 'What is done to the printed sheets, in order, as JSON for other programs: cuts, folds, gathering, binding, trimming, piles.',
  make: 'Make finishing plan',
  inName: () => '',
  amount: ({ docket, list, plan }) =>
    plan
      ? plural(finishPlanOf({ list, plan, scheme: docket.scheme }, '').operations.length, 'instruction')
      : '',
});
