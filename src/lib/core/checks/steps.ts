import type { Check } from './finding';

/** Steps that could not apply to the pages they met. */
export const checkSteps: Check = ({ replay }) =>
  replay.failed.map(({ step, problem }) => ({
    code: 'step-failed',
    problem,
    kind: step.kind,
    level: 'stop',
    stage: 'pages',
    pages: [],
    step: step.id,
  }));
