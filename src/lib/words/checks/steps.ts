import { t } from '../language';
import { sayStepProblem } from '../stepProblems';
import type { CheckWords } from './checkWords';

export const steps: CheckWords<'steps'> = {
  found: {
    'step-failed': (finding) => ({
      title: t`A step does not apply`,
      text: t`${sayStepProblem(finding.problem)} The pages pass this step unchanged until it is edited or taken out.`,
    }),
  },
  mends: {},
};
