import * as z from 'zod';
import { spreadsOf } from '../../pages/leaves';
import type { Page, PageList } from '../../model/page';
import { resolveSelection } from '../../select/selection';
import { selectionSchema } from '../../model/selection';
import { defineStep, StepProblem } from '../stepKind';
import { pagesOnly, stepBase } from './base';
import { entryAt } from '../../entries';

/**
 * Marks facing pages as a pair that must stay together, or lets them go again. One page stands for itself and the page
 * that it faces; of more than one, each must face another of them. Throws StepProblem if one does not.
 */
export const keep = defineStep(
  z.object({ ...stepBase, kind: z.literal('keep'), pages: selectionSchema, together: z.boolean() }),
)({
  kind: 'keep',
  on: 'pages',
  key: 'k',
  button: true,
  fresh: ({ list, chosen = '2-3', indexes }) => ({
    kind: 'keep',
    pages: chosen,
    together: !indexes.some((index) => list.pages[index]?.kept),
  }),
  apply(list, step) {
    const selected = new Set(pagesOnly(resolveSelection(step.pages, list), list));
    if (!step.together) return letGo(selected, list);
    const kept = new Map<number, string>();
    let pair = 0;
    for (const spread of list.book.facing ? spreadsOf(list.pages.length, list.book) : []) {
      const pages = Object.values(spread);
      const here = pages.filter((index) => selected.has(index)).length;
      if (here === 0) continue;
      if (pages.length === 2 && (here === 2 || selected.size === 1)) {
        pair++;
        for (const index of pages) kept.set(index, `${step.id}:${pair}`);
      }
    }
    const alone = [...selected].find((index) => !kept.has(index));
    if (alone !== undefined) throw new StepProblem('not-facing', { position: alone + 1 });
    const pages = list.pages.map((page, index): Page => {
      const id = kept.get(index);
      return id === undefined ? page : { ...page, kept: id };
    });
    return { ...list, pages };
  },
});

/** Lets pairs go of which a page is selected, whether they are still together or not. */
function letGo(selected: ReadonlySet<number>, list: PageList): PageList {
  const pairs = new Set([...selected].map((index) => entryAt(list.pages, index).kept));
  const pages = list.pages.map((page): Page => {
    if (!page.kept || !pairs.has(page.kept)) return page;
    const { kept: _, ...rest } = page;
    return rest;
  });
  return { ...list, pages };
}
