import { t } from '../../words/language';
import { STEP_KINDS, stepKind, type Step } from '../../core/docket/steps';
import { stepWords } from '../../words/steps';
import type { Bench } from '../bench.svelte';
import type { Act } from '../parts/Acts.svelte';
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
