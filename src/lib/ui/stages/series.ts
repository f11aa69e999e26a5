import { seriesOf } from '../../core/numbers/series';
import type { StepOf } from '../../core/docket/steps';
import { newStepId, type Bench, type Form } from '../bench.svelte';

type Series = ReturnType<typeof seriesOf>;

/** The last step that says the series of a job. */
function lastSaid({ docket }: Bench): StepOf<'numbers'> | undefined {
  const last = docket.steps.findLast((step) => step.kind === 'numbers' && !step.off);
  return last?.kind === 'numbers' ? last : undefined;
}

/** The form for the series of a job: an edit of the step that says them, else a new one with those that its labels make. */
export function seriesForm(bench: Bench): Form {
  const step = lastSaid(bench);
  return step
    ? { kind: 'numbers', step }
    : { kind: 'numbers', fresh: { id: newStepId(), kind: 'numbers', series: seriesOf(bench.base.list) } };
}

/** The step that gives a job these series: the one that says them, where all their pages are there when it is carried out; else a new one. */
export function saySeries(bench: Bench, series: Series): StepOf<'numbers'> {
  const known = lastSaid(bench);
  const at = bench.docket.steps.findIndex((step) => step.id === known?.id);
  const there = new Set(bench.base.replay.after[at - 1]?.pages.map(({ id }) => id));
  const reaches = series.every(({ from }) => from.ids.every((id) => there.has(id)));
  return known && reaches ? { ...known, series } : { id: newStepId(), kind: 'numbers', series };
}
