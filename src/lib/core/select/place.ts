import * as z from 'zod';
import { faceAt } from '../pages/page';
import type { Page, PageList } from '../model/page';
import { resolveSelection } from './selection';
import { selectionSchema } from '../model/selection';
import { firstOf, lastOf } from '../entries';

/** Where pages are put: at an end of the list, or before the first or after the last of some pages. */
export const placeSchema = z.union([
  z.object({ at: z.enum(['start', 'end']) }),
  z.object({ at: z.enum(['before', 'after']), pages: selectionSchema }),
]);
export type Place = z.infer<typeof placeSchema>;

/** The index at which new pages go in. Throws SelectionError. */
export function indexOfPlace(place: Place, list: PageList): number {
  if (!('pages' in place)) return place.at === 'start' ? 0 : list.pages.length;
  const selected = resolveSelection(place.pages, list).map((index) => ownPage(index, list));
  return place.at === 'before' ? firstOf(selected) : lastOf(selected) + 1;
}

/** The index of a page, or of the page on whose leaf a panel face hangs. */
function ownPage(index: number, list: PageList): number {
  const on = faceAt(list, index)?.panel?.on;
  return on === undefined ? index : list.pages.findIndex(({ id }) => id === on);
}

/** A new list with `pages` put in at `index`. */
export const insertPages = (list: PageList, index: number, pages: readonly Page[]): PageList => ({
  ...list,
  pages: [...list.pages.slice(0, index), ...pages, ...list.pages.slice(index)],
});
