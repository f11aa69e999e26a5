import { spoken, t, translated } from './language';
import type { FinishPlan } from '../core/finish/operations';
import type { DummyState } from '../core/finish/states/states';
import { capital } from './capital';
import { sayFold, sayOperation } from './finishing';
import { pageName } from './proof';
import type { Unit } from '../core/measure/unit';
import { entryAt } from '../core/entries';

const SHORT = spoken({
  print: 'Print',
  cut: 'Cut',
  'cut-out': 'Cut out',
  fold: 'Fold',
  'tip-in': 'Tip in',
  nest: 'Nest',
  gather: 'Gather',
  bind: 'Bind',
  cover: 'Cover',
  trim: 'Trim',
  stack: 'Stack',
  count: 'Done',
} as const);

/** A state of the dummy under its number on the ticket: in a word or two, in a sentence, and how it is done. */
export function sayState(
  { operation, fold }: DummyState,
  plan: FinishPlan,
  unit: Unit,
): { short: string; does: string; lines: string[] } {
  const told = entryAt(plan.operations, operation);
  const number = `${operation + 1}`;
  const { does, lines } = sayOperation(told, unit, number);
  if (told.kind !== 'fold') return { short: `${number} ${SHORT[told.kind]}`, does, lines };
  if (!fold) return { short: `${number} ${told.turn ? t`Turn` : t`Fold`}`, does, lines: lines.slice(-1) };
  return {
    short: t`${number}.${fold.number} Fold`,
    does: t`Fold ${fold.number} of ${told.folds.length}`,
    lines: [`${capital(sayFold(fold, unit))}.`],
  };
}

/** A face in sight, with the pages on it. */
export const sayFace = (sheet: number, face: 'front' | 'back', names: readonly string[]): string =>
  names.length
    ? t`${capital(names.length > 1 ? t`pages ${names.join(', ')}` : pageName(names[0] ?? ''))}, ${face} of sheet ${sheet}`
    : t`White, ${translated(face)} of sheet ${sheet}`;

/** The pages at which a book lies open. */
export function sayOpening(faces: readonly (readonly string[])[]): string {
  const names = [...new Set(faces.flat())];
  return names.length
    ? t`Open at ${names.length > 1 ? t`pages ${names.join(', ')}` : pageName(names[0] ?? '')}`
    : t`White pages`;
}
