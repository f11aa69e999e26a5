import type { NumberStyle, Series, SeriesSettings } from '../model/series';
import { formatNumber, labelRuns, readLabel } from '../pages/pageLabels';
import { artsOf } from '../pages/page';
import type { Page, PageList } from '../model/page';
import { entryAt, firstOf, lastOf } from '../entries';

/** A stretch of the page list that is numbered together, or by nothing: indexes from `from` up to, not including, `to`. */
export interface Stretch {
  series: Series | undefined;
  from: number;
  to: number;
}

/** The stretches of a list in order; together they cover every page once. Pages before the first series have none. */
export function stretchesOf({ pages, series }: PageList): Stretch[] {
  const begins = new Map((series ?? []).map((each) => [each.at, each]));
  const stretches: Stretch[] = [];
  pages.forEach(({ id }, index) => {
    const here = begins.get(id);
    if (here || !stretches.length) stretches.push({ series: here, from: index, to: index + 1 });
    else lastOf(stretches).to = index + 1;
  });
  return stretches;
}

/** The series of a list whose pages were changed, where those were not settled yet: one that began at a page that is gone begins at the next that is left of it. */
export function settleSeries(before: PageList, after: PageList): PageList {
  if (!after.series?.length || after.series !== before.series || after.pages === before.pages) return after;
  const here = new Set(after.pages.map(({ id }) => id));
  const heirOf = ({ id }: Page): string | undefined =>
    here.has(id) ? id : here.has(`${id}/1`) ? `${id}/1` : undefined;
  const series = stretchesOf(before).flatMap(({ series: known, from, to }): Series[] => {
    if (!known || here.has(known.at)) return known ? [known] : [];
    for (let index = from; index < to; index++) {
      const at = heirOf(entryAt(before.pages, index));
      if (at) return [{ ...known, at }];
    }
    return [];
  });
  return { ...after, series };
}

/** A page that shows nothing: no page of a source, or one that draws nothing itself. */
export const isBlank = (page: Page): boolean =>
  artsOf(page).every(({ empty }) => empty) && !page.laid?.length;

/** A number as a series writes it; nothing in the style `none`. */
export const inStyle = (value: number, style: NumberStyle): string =>
  style === 'none' ? '' : formatNumber(value, style);

/** The series of a list as a step says them; where it has none, those that its labels make, each beginning at its first page. */
export function seriesOf(list: PageList): ({ from: { ids: string[] } } & SeriesSettings)[] {
  if (list.series?.length)
    return list.series.map(({ at, ...series }) => ({ ...series, from: { ids: [at] } }));
  const supplied = list.pages.some(({ label }) => label !== undefined);
  const runs = supplied ? labelRuns(list.pages.map(({ label }) => label ?? '')) : [];
  const first = { from: { ids: [list.pages[0]?.id ?? ''] }, style: 'D' as const, start: 1 };
  if (!runs.length || runs.length > MOST_RUNS) return [first];
  return runs.map(({ from, style, prefix, start }) => ({
    from: { ids: [entryAt(list.pages, from).id] },
    style: style ?? 'none',
    ...(style ? { start } : {}),
    ...(prefix ? { prefix } : {}),
  }));
}
/** Labels that change more often than this are no series. */
const MOST_RUNS = 24;

/**
 * The series of a list once a page carries the label that was typed: a series begins there that counts from it, in its style.
 * `none`, or nothing, begins one without numbers. Pages before the first series carry none. Undefined if the label ends
 * in no number that could be counted from.
 */
export function numberedFrom(
  list: PageList,
  id: string,
  typed: string,
): ReturnType<typeof seriesOf> | undefined {
  const label = typed.trim();
  const none = !label || /^(none|-|–)$/i.test(label);
  const { style, start, prefix } = none ? { style: 'none' as const, start: 1, prefix: '' } : readLabel(label);
  if (!style || start < 1) return undefined;
  const known =
    list.series?.length || list.pages.some(({ label }) => label !== undefined) ? seriesOf(list) : [];
  const there = known.find(({ from }) => from.ids[0] === id);
  const begins = {
    ...there,
    from: { ids: [id] },
    style,
    start,
    prefix: prefix || undefined,
  };
  const at = new Map(list.pages.map((page, index) => [page.id, index]));
  return [...known.filter((each) => each !== there), begins].sort(
    (a, b) => (at.get(firstOf(a.from.ids)) ?? 0) - (at.get(firstOf(b.from.ids)) ?? 0),
  );
}
