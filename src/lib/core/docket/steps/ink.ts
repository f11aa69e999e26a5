import * as z from 'zod';
import { inksOf } from '../../numbers/jobInks';
import { defineStep, StepProblem } from '../stepKind';
import { stepBase } from './base';

const name = z.string().trim().min(1).max(120);

/** Gives a spot ink another name, or has it printed with another ink by naming that. Throws StepProblem if no page has it. */
export const ink = defineStep(z.object({ ...stepBase, kind: z.literal('ink'), from: name, to: name }))({
  kind: 'ink',
  on: 'numbers',
  button: false,
  fresh: ({ list, surveys }) => {
    const from = inksOf(list, surveys, { steps: [] }).find((each) => each.kind === 'spot')?.name ?? '-';
    return { kind: 'ink', from, to: from };
  },
  apply(list, { from, to }, { surveys }) {
    if (from === to) throw new StepProblem('same-ink', { name: from });
    const inks = inksOf(list, surveys, { steps: [] });
    if (!inks.some(({ kind, name }) => kind === 'spot' && name === from))
      throw new StepProblem('no-such-ink', { name: from });
    return { ...list, inks: [...(list.inks ?? []), { from, to }] };
  },
});
