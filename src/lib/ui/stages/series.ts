import { seriesOf } from '../../core/numbers/series';
import type { StepOf } from '../../core/docket/steps';
import { newStepId, type Bench } from '../bench.svelte';

/** The step that says the series of a job: its last one, else a new one with the series that its labels make. */
export function seriesStep(bench: Bench): StepOf<'numbers'> {
  const last = bench.docket.steps.findLast((step) => step.kind === 'numbers' && !step.off);
  return last?.kind === 'numbers'
    ? last
    : { id: newStepId(), kind: 'numbers', series: seriesOf(bench.base.list) };
}
