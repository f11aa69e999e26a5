import { sayStepProblem } from '../stepProblems';
import type { CheckWords } from './checkWords';

export const steps: CheckWords<'steps'> = {
  found: {
    'step-failed': (finding) => ({
      title: 'A step does not apply',
      text: `${sayStepProblem(finding.problem)} The pages pass this step unchanged until it is edited or taken out.`,
    }),
  },
  mends: {},
};
