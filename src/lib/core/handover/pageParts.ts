import { stretchesOf } from '../numbers/series';
import { artsOf, facesOf } from '../pages/page';
import type { PageList } from '../model/page';
import { readingOrder } from '../pages/panels';
import { resolveSelection } from '../select/selection';
import type { Selection } from '../model/selection';
import { cut, range, SplitProblem, type Cuttable, type Part } from './parts';
import type { Split } from './split';
import { entryAt } from '../entries';

/** Which pages go out, and how they are shared out to files. */
interface PagesOut {
  pages?: Selection | undefined;
  split?: Split | undefined;
}

/** The pages that a reading-order file has, as indexes of `facesOf` in the order of the file. Throws SelectionError. */
export function facesOut({ list }: Pick<Cuttable, 'list'>, { pages }: PagesOut): number[] {
  if (pages === undefined) return readingOrder(list);
  const selected = new Set(resolveSelection(pages, list));
  return readingOrder(list).filter((index) => selected.has(index));
}

/** The files of a reading-order output. Throws SplitProblem, SelectionError. */
export function pageParts(work: Cuttable, output: PagesOut): Part[] {
  const { split } = output;
  const order = facesOut(work, output);
  const numberOf = positionsIn(work.list);
  if (!split || split.by === 'every' || split.by === 'faces' || split.by === 'size')
    return cut(order, split, numberOf);
  if (split.by === 'pieces') return pieceParts(work.list, order, numberOf);
  const begins = beginsOf(work, split, order);
  const parts: { name: string; pages: number[]; from: number; to: number }[] = [];
  order.forEach((index, n) => {
    const name = begins.get(n);
    const open = parts.at(-1);
    if (name === undefined && open) open.pages.push(index);
    else parts.push({ name: name || String(parts.length + 1), pages: [index], from: 0, to: 0 });
  });
  return parts.map((each) => ({
    ...each,
    from: Math.min(...each.pages.map(numberOf)),
    to: Math.max(...each.pages.map(numberOf)),
  }));
}

/** The position of a page, or of the page on whose leaf a panel hangs. */
function positionsIn(list: PageList): (index: number) => number {
  const at = new Map(list.pages.map(({ id }, index) => [id, index + 1]));
  const faces = facesOf(list);
  return (index) => at.get(entryAt(faces, index).panel?.on ?? entryAt(faces, index).id) ?? index + 1;
}

/** Where in an order of pages parts begin, and what each is called; no name where it is only counted. */
function beginsOf(
  { list, surveys }: Cuttable,
  split: Extract<Split, { by: 'bookmarks' | 'series' | 'places' }>,
  order: readonly number[],
): Map<number, string> {
  if (split.by === 'places') {
    const at = new Set(resolveSelection(split.at, list));
    return new Map(order.flatMap((index, n) => (at.has(index) ? [[n, '']] : [])));
  }
  const place = new Map(order.map((index, n) => [index, n]));
  if (split.by === 'series') {
    if (!list.series?.length) throw new SplitProblem('no-series');
    return new Map(
      stretchesOf(list).flatMap(({ series, from, to }) => {
        // A series whose first pages stay behind begins with the first that goes out.
        const first = range(to - from)
          .map((n) => place.get(from + n))
          .find((n) => n !== undefined);
        return first === undefined ? [] : [[first, series?.name ?? '']];
      }),
    );
  }
  const faces = facesOf(list);
  /** Where each source page goes out first. */
  const out = new Map<string, number>();
  order.forEach((index, n) => {
    for (const { source, index: page } of artsOf(entryAt(faces, index))) {
      const key = `${source}:${page}`;
      if (!out.has(key)) out.set(key, n);
    }
  });
  const begins = Object.entries(surveys).flatMap(([source, { bookmarks }]) =>
    bookmarks.flatMap(({ title, level, page }): [number, string][] => {
      const at = level === split.level && page !== undefined ? out.get(`${source}:${page}`) : undefined;
      return at === undefined ? [] : [[at, title.trim()]];
    }),
  );
  if (!begins.length) throw new SplitProblem('no-bookmarks');
  // If several bookmarks point to a page, the first one names the part.
  return new Map(begins.reverse());
}

/** A part for each piece, wherever in the list its pages are; pages of none last. */
function pieceParts(list: PageList, order: readonly number[], numberOf: (index: number) => number): Part[] {
  const faces = facesOf(list);
  const parts = new Map<string | undefined, number[]>();
  for (const index of order) {
    const name = entryAt(faces, index).piece?.name;
    parts.set(name, [...(parts.get(name) ?? []), index]);
  }
  if (![...parts.keys()].some((name) => name !== undefined)) throw new SplitProblem('no-pieces');
  const rest = parts.get(undefined);
  parts.delete(undefined);
  return [...parts, ...(rest ? [['rest', rest] as const] : [])].map(([name, pages]) => ({
    name: name!,
    pages,
    from: Math.min(...pages.map(numberOf)),
    to: Math.max(...pages.map(numberOf)),
  }));
}
