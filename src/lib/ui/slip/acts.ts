import { t } from '../../words/language';
import type { Selection } from '../../core/model/selection';
import { applyStep, STEP_KINDS, stepKind, type Step } from '../../core/docket/steps';
import { cutToInk } from '../../core/docket/steps/crop';
import { StepProblem } from '../../core/docket/stepKind';
import { stepWords } from '../../words/steps';
import type { Bench } from '../bench.svelte';
import type { Act } from '../parts/Acts.svelte';
import type { MenuItem } from '../menu.svelte';
import { newStepId } from '../newStepId';
import { SHORTCUTS } from './shortcuts';

/** The buttons of a stage: one for each kind of step that it offers. */
export const actsOf = (stage: 'pages' | 'numbers', bench: Bench): Act[] =>
  STEP_KINDS.filter(({ on, button }) => on === stage && button).map(({ kind, key }) => {
    const { name, button, group, does } = stepWords(kind);
    return {
      word: button ?? name,
      ...(group ? { group } : {}),
      ...(does ? { does } : {}),
      ...(key ? { key: sayKey(key) } : {}),
      disabled: !isPossible(kind, bench),
      do: () => bench.begin(kind),
    };
  });

/** What is whole in itself and needs no form, done to these pages at once. */
export function actsAtOnce(pages: Selection, bench: Bench): MenuItem[] {
  const base = { id: newStepId(), pages };
  const turn = (by: 90 | 180 | 270): Step => ({ ...base, kind: 'turn', by });
  const { facing } = bench.base.list.book;
  const acts: [word: string, step: Step][] = [
    [t`Turn right 90°`, turn(90)],
    [t`Turn 180°`, turn(180)],
    [t`Turn left 90°`, turn(270)],
    [t`Crop to the ink`, { ...base, kind: 'crop', cut: cutToInk(facing) }],
  ];
  return acts.map(([word, step]) => ({
    word,
    disabled: !canApply(step, bench),
    do: () => bench.acceptStep(step),
  }));
}

function canApply(step: Step, { base, surveys, docket }: Bench): boolean {
  try {
    applyStep(base.list, step, { surveys, formats: docket.formats });
    return true;
  } catch (error) {
    if (error instanceof StepProblem) return false;
    throw error;
  }
}

/** The keys that begin a step, with what they do, as the list of keys has them. */
export const stepKeys = (): [key: string, does: string][] =>
  [
    ...STEP_KINDS.map(({ kind, key }) => [key ? sayKey(key) : '', stepWords(kind).does ?? ''] as const),
    ...SHORTCUTS.map(({ key, does }) => [sayKey(key), does()] as const),
  ].flatMap(([key, does]) => (key && does ? [[key, does]] : []));

/** Whether a step of a kind could do anything to the job as it stands. */
export const isPossible = (kind: Step['kind'], bench: Bench): boolean =>
  stepKind(kind).possible?.(bench.beginning()) ?? bench.base.list.pages.length > 0;

/** A key as it is printed on keyboards: `KeyboardEvent.key` c is C, C is ⇧C. */
export const sayKey = (key: string): string =>
  key === 'Delete' ? t`Del` : /^[A-Z]$/.test(key) ? `⇧${key}` : key.toUpperCase();
