import type { Format } from '../../core/docket/format';
import type { Step } from '../../core/docket/steps';
import type { Unit } from '../../core/measure/unit';
import type { PageList } from '../../core/pages/page';
import { blank } from './blank';
import { bleed } from './bleed';
import { copy } from './copy';
import { cover } from './cover';
import { crop } from './crop';
import { folio } from './folio';
import { format } from './format';
import { giveBack } from './giveBack';
import { ink } from './ink';
import { join } from './join';
import { keep } from './keep';
import { margins } from './margins';
import { move } from './move';
import { numbers } from './numbers';
import { overlay } from './overlay';
import { panel } from './panel';
import { piece } from './piece';
import { readingOrder } from './readingOrder';
import { remove } from './remove';
import { running } from './running';
import { set } from './set';
import { split } from './split';
import { stamp } from './stamp';
import { takeIn } from './takeIn';
import { trim } from './trim';
import { turn } from './turn';
import { uncrop } from './uncrop';
import type { FieldWords, Saying, StepWords } from './stepWords';

/** The words of every kind of step. */
const WORDS: { [Kind in Step['kind']]: StepWords<Kind> } = {
  'take-in': takeIn,
  trim,
  bleed,
  crop,
  uncrop,
  turn,
  margins,
  format,
  piece,
  blank,
  copy,
  move,
  remove,
  keep,
  cover,
  panel,
  'give-back': giveBack,
  split,
  join,
  'reading-order': readingOrder,
  numbers,
  folio,
  running,
  stamp,
  overlay,
  set,
  ink,
};

type AnyWords = Omit<StepWords<Step['kind']>, 'say' | 'fields'> & {
  say(step: Step, saying: Saying): ReturnType<StepWords<Step['kind']>['say']>;
  fields?: Record<string, FieldWords>;
};
/** The words of a kind of step, whichever it is. */
export const stepWords = (kind: Step['kind']): AnyWords => WORDS[kind] as unknown as AnyWords;

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
