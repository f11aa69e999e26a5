import type { Format } from '../../core/docket/format';
import type { Step } from '../../core/docket/steps';
import type { Unit } from '../../core/measure/unit';
import type { PageList } from '../../core/model/page';
import { WORDS } from './kinds';
import type { FieldWords } from '../fieldWords';
import type { Saying, StepWords } from './stepWords';
import { ofAnyKind } from '../../core/kinds';

type AnyWords = Omit<StepWords<Step['kind']>, 'say' | 'fields'> & {
  say(step: Step, saying: Saying): ReturnType<StepWords<Step['kind']>['say']>;
  fields?: Record<string, FieldWords>;
};
/** The words of a kind of step, whichever it is. */
export const stepWords = (kind: Step['kind']): AnyWords => ofAnyKind(WORDS[kind]);

/** A step in words: `act` is what it does, `what` to what, `detail` the rest. `before` is the list that the step meets. */
export function sayStep(
  step: Step,
  unit: Unit,
  before: PageList,
  formats: readonly Format[] = [],
): { act: string; what: string; detail: string } {
  const { name, say } = stepWords(step.kind);
  return { act: name, ...say(step, { unit, before, formats }) };
}
