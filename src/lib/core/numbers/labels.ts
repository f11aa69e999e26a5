import { numberingOf } from './numbering';
import type { PageList } from '../model/page';
import { entryOf } from '../entries';

/** The label of each page, in order. */
export const labelsOf = (list: PageList): string[] =>
  list.pages.map(({ id }) => entryOf(numberingOf(list), id).label);

/** The labels of all pages and of the faces of panels, by their ids. */
export const faceLabels = (list: PageList): ReadonlyMap<string, string> =>
  new Map([...numberingOf(list)].map(([id, { label }]) => [id, label]));
