import { dayOf } from '../../core/numbers/day';
import type { StepOf } from '../../core/docket/steps';

/** The step with today's date where a text of it asks for one and it has none yet; the docket keeps it, so that what was handed over comes out the same again. */
export function withDate<Lined extends StepOf<'folio'> | StepOf<'set'> | StepOf<'running'>>(
  step: Lined,
): Lined {
  const asks = /\{\s*date\s*\}/i.test(JSON.stringify('texts' in step ? step.texts : [step.text, step.left]));
  return asks && !step.date ? { ...step, date: dayOf(new Date()) } : step;
}
