import * as z from 'zod';
import { distance, lengthWithin, pageLength } from '../../measure/lengthSchema';
import { mm } from '../../measure/unit';
import { addressesOf } from '../../pages/panels';
import { StepProblem } from '../stepKind';
import { faceAt, mapFaces, sideAt } from '../../pages/page';
import type { Edges, Page, PageList, Side } from '../../model/page';
import { resolveSelection } from '../../select/selection';
import type { Selection } from '../../model/selection';

/** What every step has: an id that never changes, whether it is switched off, and the recipe that it came from, in which version. */
export const stepBase = {
  id: z.string().min(1).max(64),
  off: z.literal(true).optional(),
  recipe: z.object({ name: z.string().min(1).max(60), version: z.number().int().min(1) }).optional(),
};

/** The widest bleed taken: 50 mm, far beyond any use. */
export const MOST_BLEED = mm(50);

/** Bleed as a form begins it: 3 mm all round, by common practice. */
export const PLAIN_BLEED: Edges = { head: mm(3), foot: mm(3), spine: mm(3), fore: mm(3) };
/** Margins and the gap between columns as a form begins them. */
export const PLAIN_MARGINS: Edges = { head: mm(12), foot: mm(15), spine: mm(15), fore: mm(12) };
export const COLUMN_GAP = mm(5);

const edges = (edge: z.ZodNumber) => ({ head: edge, foot: edge, spine: edge, fore: edge });
export const bleedEdges = edges(lengthWithin([0, MOST_BLEED]));
export const cutEdges = edges(distance);
export const marginEdges = cutEdges;
/** Margins from the trim inwards, and the columns between them. */
export const marginsSchema = z.object({
  ...marginEdges,
  columns: z.number().int().min(1).max(40),
  gap: distance,
});
export const sizeSchema = z.object({ width: pageLength, height: pageLength });

/** The picked indexes, where all are pages of the list. Throws StepProblem where a panel is among them: it stays on its leaf. */
export function pagesOnly(picked: readonly number[], list: PageList): readonly number[] {
  const panel = picked.find((index) => index >= list.pages.length);
  if (panel === undefined) return picked;
  throw new StepProblem('panel-stays', { panel: addressesOf(list).get(faceAt(list, panel)!.id) ?? '' });
}

/** The list with every picked page and panel face changed by `change`. Throws SelectionError. */
export function changePages(
  list: PageList,
  selection: Selection,
  change: (page: Page, side: Side, index: number) => Page,
): PageList {
  const picked = new Set(resolveSelection(selection, list));
  return mapFaces(list, (page, index) =>
    picked.has(index) ? change(page, sideAt(index, list), index) : page,
  );
}
