import * as z from 'zod';
import { addressesOf } from '../../pages/panels';
import { StepProblem } from '../stepKind';
import { faceAt, mapFaces, sideAt } from '../../pages/page';
import type { Page, PageList, Side } from '../../model/page';
import { resolveSelection } from '../../select/selection';
import type { Selection } from '../../model/selection';

/** What every step has: an id that never changes, whether it is switched off, and the recipe that it came from, in which version. */
export const stepBase = {
  id: z.string().min(1).max(64),
  off: z.literal(true).optional(),
  recipe: z.object({ name: z.string().min(1).max(60), version: z.number().int().min(1) }).optional(),
};

/** The selected indexes, where all are pages of the list. Throws StepProblem if a panel is among them: it stays on its leaf. */
export function pagesOnly(selected: readonly number[], list: PageList): readonly number[] {
  const panel = selected.find((index) => index >= list.pages.length);
  if (panel === undefined) return selected;
  throw new StepProblem('panel-stays', { panel: addressesOf(list).get(faceAt(list, panel)!.id) ?? '' });
}

/** The list with every selected page and panel face changed by `change`. Throws SelectionError. */
export function changePages(
  list: PageList,
  selection: Selection,
  change: (page: Page, side: Side, index: number) => Page,
): PageList {
  const selected = new Set(resolveSelection(selection, list));
  return mapFaces(list, (page, index) =>
    selected.has(index) ? change(page, sideAt(index, list), index) : page,
  );
}
