import { facesOf, mapFaces } from '../pages/page';
import type { Page, PageList } from '../model/page';
import { numberedLike, numberingOf, type Numbered } from './numbering';
import type { Hidden, Matter } from '../model/lines';
import { isBlank } from './series';
import { entryAt, entryOf } from '../entries';

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

/** What lines say of a job: its title, and the names of the files that its pages came from. */
export interface Titled {
  title: string;
  steps: readonly { kind: string; source?: string; name?: string }[];
}

/** A list before and after it was finished. */
interface Finished {
  bare: PageList;
  done: PageList;
}

/**
 * The list with what the lines on its pages say, which hangs on all the pages and so comes last. A page that was finished
 * `before` and whose lines still say the same stays the same object, so that nothing draws it anew.
 */
export function finishList(list: PageList, { title, steps }: Titled, before?: Finished): PageList {
  if (!facesOf(list).some(({ lines }) => lines)) return list;
  const numbering = numberingOf(list);
  const files = new Map(steps.flatMap(({ source, name }) => (source && name ? [[source, name]] : [])));
  const earlier = before && pairs(before);
  const done = mapFaces(list, (page) => {
    if (!page.lines) return page;
    const numbered = entryOf(numbering, page.id);
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
    const known = earlier?.get(page);
    if (known?.matter && sayTheSame(known.matter, matter)) return known;
    const { matter: _, ...bare } = page;
    return { matter, ...bare };
  });
  return numberedLike(done, list);
}

/** Finished pages by what they were before. */
function pairs({ bare, done }: Finished): Map<Page, Page> {
  const after = facesOf(done);
  return new Map(facesOf(bare).map((page, index) => [page, entryAt(after, index)]));
}

const sayTheSame = (a: readonly Matter[], b: readonly Matter[]): boolean =>
  a.map(keyOf).join('\n') === b.map(keyOf).join('\n');
/** What of a page's lines hangs on other pages, as text. */
const keyOf = ({ values: v, first, hidden }: Matter): string =>
  `${v.page}\t${v.pages}\t${v.label}\t${v.series}\t${v.title}\t${v.file}\t${v.piece}\t${first}\t${hidden ?? ''}`;

function hiddenBy(page: Page, { lines }: Pick<Matter, 'lines'>, { first }: Numbered): Hidden | undefined {
  if (lines.away?.includes(page.id)) return 'away';
  if (isBlank(page) && !lines.blanks) return 'blank';
  return first && lines.notFirst ? 'first' : undefined;
}
