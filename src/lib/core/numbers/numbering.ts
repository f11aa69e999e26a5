import { facesOf } from '../pages/page';
import type { Page, PageList } from '../model/page';
import { panelsOf, readingOrder } from '../pages/panels';
import { formatNumber } from '../pages/pageLabels';
import { inStyle, isBlank, stretchesOf } from './series';
import type { Series } from '../model/series';
import { entryAt, entryOf } from '../entries';

/** How a page is numbered. */
export interface Numbered {
  /** The whole label, nothing if it has none; and the number in it, without prefix and suffix. */
  label: string;
  number: string;
  series: Series | undefined;
  /** It is the first page of its series. */
  first: boolean;
  /** The last number of its series. */
  last: string;
}

/**
 * How every page and panel face is numbered, by id. Where the list has no series, pages keep the labels that any source
 * brings (ISO 32000-1, 12.4.2) and the others carry none; where none brings any, a page's label is its position.
 */
export function numberingOf(list: PageList): ReadonlyMap<string, Numbered> {
  const known = numbered.get(list) ?? (list.series?.length ? bySeries(list) : asSupplied(list));
  numbered.set(list, known);
  return known;
}
const numbered = new WeakMap<PageList, ReadonlyMap<string, Numbered>>();

/** A list that differs from another in nothing that numbers hang on is numbered as that one. */
export function numberedLike(list: PageList, other: PageList): PageList {
  numbered.set(list, numberingOf(other));
  return list;
}

function asSupplied(list: PageList): Map<string, Numbered> {
  const supplied = list.pages.some((page) => page.label !== undefined);
  const found = new Map(
    list.pages.map((page, index): [string, Numbered] => {
      const label = supplied ? (page.label ?? '') : String(index + 1);
      return [
        page.id,
        { label, number: label, series: undefined, first: index === 0, last: String(list.pages.length) },
      ];
    }),
  );
  labelPanels(list, found);
  return found;
}

function bySeries(list: PageList): Map<string, Numbered> {
  const found = new Map<string, Numbered>();
  const faces = facesOf(list);
  const order = readingOrder(list);
  const stretches = stretchesOf(list);
  let value = 0;
  let open = -1;
  let mine: string[] = [];
  const close = () => {
    const last = mine.map((id) => entryOf(found, id).number).findLast((number) => number) ?? '';
    for (const id of mine) found.set(id, { ...entryOf(found, id), last });
    mine = [];
  };
  for (const index of order) {
    const page = entryAt(faces, index);
    const isPanel = index >= list.pages.length;
    const begins = !isPanel && stretches[open + 1]?.from === index;
    if (begins) {
      close();
      open++;
      value = (entryAt(stretches, open).series?.start ?? value + 1) - 1;
    }
    const { series } = entryAt(stretches, Math.max(0, open));
    if (isPanel && !series?.panels) continue;
    const counts = !!series && !(series.skipBlanks && isBlank(page));
    if (counts) value++;
    const number = counts ? inStyle(value, series.style) : '';
    const label = counts ? `${series.prefix ?? ''}${number}${series.suffix ?? ''}` : '';
    found.set(page.id, { label, number, series, first: begins, last: '' });
    mine.push(page.id);
  }
  close();
  labelPanels(list, found);
  return found;
}

/** A letter after a label: 5a, but Cover a. */
const lettered = (label: string, letter: string): string =>
  `${label}${/\d$/.test(label) ? '' : ' '}${letter}`;

/** The labels of panel faces that no series counts; they never change the label of a page. */
function labelPanels(list: PageList, found: Map<string, Numbered>): void {
  const panels = panelsOf(list).filter(({ front }) => !found.has(front.id));
  if (!panels.length) return;
  const own = list.pages.map(({ id }) => entryOf(found, id).label);
  const numbers = own.filter((label) => /^\d+$/.test(label)).map(Number);
  let next = numbers.length ? Math.max(...numbers) : list.pages.length;
  for (const { on, nth, front, back } of panels) {
    const mine = entryOf(found, entryAt(list.pages, on).id);
    const label = (face: 0 | 1): string => {
      const how = list.book.panels ?? 'lettered';
      if (how === 'none') return '';
      if (how === 'continued') return String(++next);
      return lettered(own[on] || String(on + 1), formatNumber(2 * (nth - 1) + face + 1, 'a'));
    };
    const put = ({ id }: Page, said: string) =>
      found.set(id, { ...mine, label: said, number: said, first: false });
    put(front, label(0));
    put(back, label(1));
  }
}
