import * as z from 'zod';
import { inkName, inksOfPage } from '../../pages/inks';
import { artsOf, facesOf, type PageList } from '../../pages/page';
import type { Surveys } from '../../pages/survey';
import { defineStep, StepProblem } from '../stepKind';
import { stepBase } from './base';

const name = z.string().trim().min(1).max(120);

/** Gives a spot ink another name, or has it printed with another ink by naming that. Throws StepProblem where no page has it. */
export const ink = defineStep({
  kind: 'ink',
  schema: z.object({ ...stepBase, kind: z.literal('ink'), from: name, to: name }),
  apply(list, { from, to }, { surveys }) {
    if (from === to) throw new StepProblem('same-ink', { name: from });
    if (!spotsIn(list, surveys).has(from)) throw new StepProblem('no-such-ink', { name: from });
    return { ...list, inks: [...(list.inks ?? []), { from, to }] };
  },
});

/** The spot inks of a list by what they are called so far. */
function spotsIn(list: PageList, surveys: Surveys): Set<string> {
  const names = facesOf(list).flatMap((page) => [
    ...[...artsOf(page), ...(page.laid ?? []).flatMap(({ arts }) => arts)].flatMap((art) =>
      inksOfPage(art, surveys),
    ),
    ...(page.lines ?? []).flatMap(({ lines }) =>
      lines.ink.as === 'spot' ? [{ kind: 'spot' as const, name: lines.ink.name }] : [],
    ),
  ]);
  return new Set(names.flatMap(({ kind, name }) => (kind === 'spot' ? [inkName(name, list.inks)] : [])));
}
