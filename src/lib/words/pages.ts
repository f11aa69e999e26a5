import { t, translated } from './language';
import { formatFigure, formatLength, UNIT_SIGN } from '../core/measure/formatLength';
import type { Unit } from '../core/measure/unit';
import { describeIndexes } from '../core/select/selection';
import type { Selection } from '../core/model/selection';
import { facesOf } from '../core/pages/page';
import type { Edges, PageList } from '../core/model/page';
import type { Place } from '../core/select/place';

const sayTyped = (text: string): string => {
  if (/^all$/i.test(text)) return t`all pages`;
  if (/^panels$/i.test(text)) return t`all panels`;
  if (/^last$/i.test(text)) return t`the last page`;
  if (/^(odd|even)$/i.test(text)) return t`${text.toLowerCase()} pages`;
  return /^(\d+|"[^"]*")$/i.test(text) ? t`page ${text}` : t`pages ${text}`;
};

/** Pages of a step in words; selected ones by where they are now. */
export function sayPages(selection: Selection, list: PageList): string {
  if (typeof selection === 'string') return sayTyped(selection.trim());
  const ids = new Set(selection.ids);
  const indexes = facesOf(list).flatMap((page, index) => (ids.has(page.id) ? [index] : []));
  if (!indexes.length) return t`pages that are gone`;
  const said = describeIndexes(indexes, list);
  return said === 'panels' ? t`all panels` : `${indexes.length === 1 ? t`page` : t`pages`} ${said}`;
}

/** Pages by where they are: `page 3`, `pages 3-5`. */
export const namePages = (count: number, where: string): string =>
  count === 1 ? t`page ${where}` : t`pages ${where}`;

/** A place in words: `before page 3`. */
export function sayPlace(place: Place, list: PageList): string {
  if (!('pages' in place)) return place.at === 'start' ? t`at the start` : t`at the end`;
  const pages = sayPages(place.pages, list);
  return `${translated(place.at)} ${pages}`;
}

/** Lengths at the four edges of the book in words. */
export function sayEdges({ head, foot, spine, fore }: Edges, unit: Unit): string {
  if (head === foot && foot === spine && spine === fore) return t`${formatLength(head, unit)} all round`;
  return sayFour(unit, { head, foot, spine, 'fore edge': fore });
}

/** Several lengths, each with where it lies, and their unit once at the end. */
export const sayFour = (unit: Unit, lengths: Record<string, number>): string =>
  `${Object.entries(lengths)
    .map(([edge, points]) => `${edge} ${formatFigure(points, unit)}`)
    .join(', ')} ${unit === 'pica' ? '' : UNIT_SIGN[unit]}`.trim();
