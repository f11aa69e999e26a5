import type { Step } from '../docket/steps';
import type { StepProblem } from '../docket/stepKind';
import type { SelectionError } from '../select/selection';
import type { Check, CheckKind } from './finding';

/** What this family finds. */
type Found = { code: 'step-failed'; problem: StepProblem | SelectionError; kind: Step['kind'] };

/** Steps that could not apply to the pages they met. */
const checkSteps: Check<Found, never> = ({ replay }) =>
  replay.failed.map(({ step, problem }) => ({
    code: 'step-failed',
    problem,
    kind: step.kind,
    level: 'stop',
    stage: 'pages',
    pages: [],
    step: step.id,
  }));

/** The family of these findings. */
export const steps: CheckKind<'steps', Found, never> = { kind: 'steps', check: checkSteps };
