import { dayOf } from '../../core/numbers/day';
import type { WorkedOut } from '../../core/checks';
import type { Output } from '../../core/handover/outputs';
import { partsOf } from '../../core/handover/outputs';
import { SplitProblem, type Part } from '../../core/handover/parts';
import { PatternError } from '../../core/numbers/pattern';
import { SelectionError } from '../../core/select/selection';
import { saySelectionError } from '../../words/selections';
import { sayTrouble } from '../../words/troubles';
import { partNames } from '../../words/fileName';
import { sayNameError } from '../../words/patterns';

/** The files that an output will give, or why it cannot be made. Nothing is written. */
export function filesOf(
  work: WorkedOut,
  output: Output,
): { parts: readonly Part[]; names: readonly string[]; wrong: string } {
  const wrong = (said: string) => ({ parts: [], names: [], wrong: said });
  try {
    const parts = partsOf(work, output);
    return { parts, names: partNames(work, output, parts, dayOf(new Date())), wrong: '' };
  } catch (error) {
    if (error instanceof SplitProblem) return wrong(sayTrouble({ code: error.code }));
    if (error instanceof SelectionError) return wrong(saySelectionError(error));
    if (error instanceof PatternError) return wrong(sayNameError(error));
    throw error;
  }
}
