import type { seriesOf } from '../../core/numbers/series';
import type { StepOf } from '../../core/docket/steps';
import type { Bench } from '../bench.svelte';
import { newStepId } from '../newStepId';

type Series = ReturnType<typeof seriesOf>;

/** The step that sets these series: the existing one if all their pages are there when it applies, otherwise a new one. */
export function saySeries(bench: Bench, series: Series): StepOf<'numbers'> {
  const known = bench.lastOf('numbers');
  const at = bench.docket.steps.findIndex((step) => step.id === known?.id);
  const there = new Set(bench.base.replay.after[at - 1]?.pages.map(({ id }) => id));
  const reaches = series.every(({ from }) => from.ids.every((id) => there.has(id)));
  return known && reaches ? { ...known, series } : { id: newStepId(), kind: 'numbers', series };
}
