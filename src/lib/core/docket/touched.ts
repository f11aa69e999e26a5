import { facesOf } from '../pages/page';
import type { PageList } from '../model/page';
import { pickedOf } from '../select/selection';
import type { Step } from './steps';

/**
 * Ids of the pages that a step acted on, among those that it left: what it added or changed; where it changed none, as
 * one that moves pages, those that it was told of. Empty for one that acts on the book as a whole.
 */
export function touchedBy(step: Step, before: PageList, after: PageList): string[] {
  const were = new Map(facesOf(before).map((page) => [page.id, page]));
  const faces = facesOf(after);
  const differ = faces.flatMap((page) => (were.get(page.id) === page ? [] : [page.id]));
  if (differ.length || !('pages' in step)) return differ;
  const told = facesOf(before);
  const ids = new Set(pickedOf(step.pages, before).map((index) => told[index]?.id));
  return faces.flatMap(({ id }) => (ids.has(id) ? [id] : []));
}
