import { formatNumber } from './pageLabels';
import type { Page, PageList } from './page';
import { panelsOf } from './panels';

/**
 * The label of each page. Where any source brings page labels (ISO 32000-1, 12.4.2), pages keep those and the others
 * carry none; otherwise a page's label is its position.
 */
export function labelsOf(pages: readonly Page[]): string[] {
  const supplied = pages.some((page) => page.label !== undefined);
  return pages.map((page, index) => (supplied ? (page.label ?? '') : String(index + 1)));
}

/** A letter after a label: 5a, but Cover a. */
const lettered = (label: string, letter: string): string =>
  `${label}${/\d$/.test(label) ? '' : ' '}${letter}`;

/** The labels of all pages and of the faces of panels, by their ids; a panel never changes the label of a page. */
export function faceLabels(list: PageList): ReadonlyMap<string, string> {
  const own = labelsOf(list.pages);
  const labels = new Map(list.pages.map(({ id }, index) => [id, own[index]!]));
  const numbers = own.filter((label) => /^\d+$/.test(label)).map(Number);
  let next = numbers.length ? Math.max(...numbers) : list.pages.length;
  for (const { on, nth, front, back } of panelsOf(list)) {
    const letter = (face: 0 | 1) => formatNumber(2 * (nth - 1) + face + 1, 'a');
    const numbered = list.book.panels ?? 'lettered';
    const label = (face: 0 | 1): string => {
      if (numbered === 'none') return '';
      return numbered === 'continued' ? String(++next) : lettered(own[on] || String(on + 1), letter(face));
    };
    labels.set(front.id, label(0)).set(back.id, label(1));
  }
  return labels;
}
