import type { Docket } from '../docket/docket';
import { facesOf, mapFaces, type Page, type PageList } from '../pages/page';
import { numberedLike, numberingOf, type Numbered } from './numbering';
import type { Hidden, Matter } from './lines';
import { isBlank } from './series';

const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
];
/** A date in words: 25 November 2026. */
export function sayDate(iso: string): string {
  const [year, month, day] = iso.split('-').map(Number);
  return `${day} ${MONTHS[month! - 1]} ${year}`;
}

/** Pages that were finished before: one whose lines still say the same stays the same object, so that nothing draws it anew. */
const finished = new WeakMap<Page, { key: string; page: Page }>();

/** The list with what the lines on its pages say, which hangs on all the pages and so comes last. */
export function finishList(list: PageList, { title, steps }: Pick<Docket, 'title' | 'steps'>): PageList {
  if (!facesOf(list).some(({ lines }) => lines)) return list;
  const numbering = numberingOf(list);
  const files = new Map(steps.flatMap((step) => (step.kind === 'take-in' ? [[step.source, step.name]] : [])));
  const done = mapFaces(list, (page) => {
    if (!page.lines) return page;
    const numbered = numbering.get(page.id)!;
    const file = files.get(page.art?.source ?? '')?.replace(/\.[^.]+$/, '') ?? '';
    const matter = page.lines.map((lines): Matter => {
      const why = hiddenBy(page, lines, numbered);
      return {
        ...lines,
        first: numbered.first,
        ...(why ? { hidden: why } : {}),
        values: {
          page: numbered.number,
          pages: numbered.last,
          label: numbered.label,
          series: numbered.series?.name ?? '',
          title,
          file,
          piece: page.piece?.name ?? '',
          date: lines.lines.date ? sayDate(lines.lines.date) : '',
          number: lines.number ?? '',
        },
      };
    });
    const key = matter.map(keyOf).join('\n');
    const known = finished.get(page);
    if (known?.key === key) return known.page;
    const whole = { ...page, matter };
    finished.set(page, { key, page: whole });
    return whole;
  });
  return numberedLike(done, list);
}

/** What of a page's lines hangs on other pages, as text. */
const keyOf = ({ values: v, first, hidden }: Matter): string =>
  `${v.page}\t${v.pages}\t${v.label}\t${v.series}\t${v.title}\t${v.file}\t${v.piece}\t${first}\t${hidden ?? ''}`;

function hiddenBy(page: Page, { lines }: Pick<Matter, 'lines'>, { first }: Numbered): Hidden | undefined {
  if (lines.away?.includes(page.id)) return 'away';
  if (isBlank(page) && !lines.blanks) return 'blank';
  return first && lines.notFirst ? 'first' : undefined;
}
