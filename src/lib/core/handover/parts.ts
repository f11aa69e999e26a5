import type { Docket } from '../docket/docket';
import { stretchesOf } from '../numbers/series';
import { artsOf, facesOf, type PageList } from '../pages/page';
import { readingOrder } from '../pages/panels';
import { resolveSelection } from '../pages/selection';
import type { Surveys } from '../pages/survey';
import { countSides, sidePlaces, type SheetPlan } from '../sheets/plan';
import { planProof } from '../sheets/spreads';
import { cutsOf, pressPlaces } from './standIns';
import { OUTPUT_KINDS, type Output, type OutputKind, type OutputOf } from './output';

/** One file of an output. */
export interface Part {
  /** What tells it from the others: its number from 1, or the bookmark, series or piece that it holds. */
  name: string;
  /** The pages of the undivided file that it has, by their indexes from 0, in their order. */
  pages: readonly number[];
  /** The first and the last of them: page positions, or sheet numbers. */
  from: number;
  to: number;
  /** Parts by size: it alone is larger than was allowed. */
  over?: true;
  /** The last front has no back. */
  alone?: true;
}

/** What an output is cut from. */
export interface Cuttable {
  docket: Pick<Docket, 'scheme'>;
  surveys: Surveys;
  list: PageList;
  plan: SheetPlan | undefined;
}

export type SplitProblemCode = 'no-bookmarks' | 'no-series' | 'no-pieces' | 'no-sheets' | 'no-template';
/** Why an output cannot be made, or not be split as asked. */
export class SplitProblem extends Error {
  constructor(readonly code: SplitProblemCode) {
    super(code);
  }
}

/** The pages that a reading-order file has, as indexes of `facesOf` in the order of the file. Throws SelectionError. */
export function facesOut({ list }: Pick<Cuttable, 'list'>, { pages }: OutputOf<'pages'>): number[] {
  if (pages === undefined) return readingOrder(list);
  const picked = new Set(resolveSelection(pages, list));
  return readingOrder(list).filter((index) => picked.has(index));
}

/**
 * The files that an output gives. One that is split by its size is one part here: only writing tells what fits. Throws
 * SplitProblem, SelectionError.
 */
export function partsOf(work: Cuttable, output: Output): Part[] {
  const { list } = work;
  /** Worked out only where an output needs it. */
  const planned = (): SheetPlan => {
    if (!work.plan) throw new SplitProblem('no-sheets');
    return work.plan;
  };
  switch (output.kind) {
    case 'pages':
      return pageParts(work, output);
    case 'sheets': {
      const places = sidePlaces(planned());
      return cut(range(places.length), output.split, (side) => places[side]!.sheet, {
        names: ['fronts', 'backs'],
        isBack: (side) => places[side]!.side === 'back',
      });
    }
    case 'spreads': {
      const spreads = planProof(list);
      return cut(range(spreads ? countSides(spreads) : 0), output.split, (spread) => spread + 1);
    }
    case 'template':
      if (work.docket.scheme.kind !== 'leaflet') throw new SplitProblem('no-template');
      return cut(range(2), undefined, (side) => side + 1);
    case 'previews': {
      if (output.of === 'pages') return each(readingOrder(list), (index) => index + 1);
      return each(range(countSides(planned())), (side) => side + 1);
    }
    case 'press': {
      const places = pressPlaces(planned(), output);
      const width = String(places.at(-1)!.sheet).length;
      return places.map(({ sheet, side }, n) => ({
        name: `${String(sheet).padStart(width, '0')} ${side}`,
        pages: [n],
        from: sheet,
        to: sheet,
      }));
    }
    case 'cutter': {
      if (output.of === 'pages') return each(readingOrder(list), (index) => index + 1);
      // Tools follow their paths from the front.
      return sidePlaces(planned()).flatMap(({ sheet, side }, n) =>
        side === 'front' ? [{ name: String(sheet), pages: [n], from: sheet, to: sheet }] : [],
      );
    }
    case 'map':
      return cut(range(planned().sheetCount), undefined, (sheet) => sheet + 1);
    default:
      return cut([0], undefined, () => 1);
  }
}

/** The kinds of output that a job can give as it stands. */
export const possibleKinds = (work: Cuttable & { docket: Docket }): OutputKind[] =>
  OUTPUT_KINDS.filter((kind) => {
    if (kind === 'sheets' || kind === 'map' || kind === 'press') return work.plan !== undefined;
    if (kind === 'cutter') return cutsOf(work, work.plan ? 'sheets' : 'pages').length > 0;
    if (kind === 'template') return work.docket.scheme.kind === 'leaflet';
    return kind !== 'spreads' || work.docket.book.facing;
  });

const range = (count: number): number[] => Array.from({ length: count }, (_, n) => n);

/** A part for each page. */
const each = (pages: readonly number[], numberOf: (page: number) => number): Part[] =>
  pages.map((page, n) => ({ name: String(n + 1), pages: [page], from: numberOf(page), to: numberOf(page) }));

/** What tells one face from the other: what files of them are called, and which of an order are backs. */
interface Faces {
  names: readonly [fronts: string, backs: string];
  isBack: (page: number, n: number) => boolean;
}
const PAGE_FACES: Faces = { names: ['odd', 'even'], isBack: (_, n) => n % 2 === 1 };

/** Parts of a file whose pages come in an order. */
function cut(
  order: readonly number[],
  split: Extract<Output, { kind: 'sheets' }>['split'],
  numberOf: (page: number) => number,
  { names, isBack }: Faces = PAGE_FACES,
): Part[] {
  const part = (pages: readonly number[], name: string): Part => ({
    name,
    pages,
    from: Math.min(...pages.map(numberOf)),
    to: Math.max(...pages.map(numberOf)),
  });
  if (split?.by === 'faces') {
    const fronts = order.filter((page, n) => !isBack(page, n));
    const backs = order.filter(isBack);
    if (!backs.length) return [part(fronts, names[0])];
    return [
      { ...part(fronts, names[0]), ...(fronts.at(-1) === order.at(-1) ? { alone: true } : {}) },
      part(split.reverse ? backs.reverse() : backs, names[1]),
    ];
  }
  const count = split?.by === 'every' ? split.count : Math.max(1, order.length);
  return range(Math.ceil(order.length / count)).map((n) =>
    part(order.slice(n * count, (n + 1) * count), String(n + 1)),
  );
}

function pageParts(work: Cuttable, output: OutputOf<'pages'>): Part[] {
  const { split } = output;
  const order = facesOut(work, output);
  const numberOf = positionsIn(work.list);
  if (!split || split.by === 'every' || split.by === 'faces' || split.by === 'size')
    return cut(order, split, numberOf);
  if (split.by === 'pieces') return pieceParts(work.list, order, numberOf);
  const begins = beginsOf(work, split, order);
  const parts: Part[] = [];
  order.forEach((index, n) => {
    const name = begins.get(n);
    const open = parts.at(-1);
    if (name === undefined && open) (open.pages as number[]).push(index);
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
  return (index) => at.get(faces[index]!.panel?.on ?? faces[index]!.id) ?? index + 1;
}

/** Where in an order of pages parts begin, and what each is called; no name where it is only counted. */
function beginsOf(
  { list, surveys }: Cuttable,
  split: Extract<NonNullable<OutputOf<'pages'>['split']>, { by: 'bookmarks' | 'series' | 'places' }>,
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
    for (const { source, index: page } of artsOf(faces[index]!)) {
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
  // Of several bookmarks to one page the first names it.
  return new Map(begins.reverse());
}

/** A part for each piece, wherever in the list its pages are; pages of none last. */
function pieceParts(list: PageList, order: readonly number[], numberOf: (index: number) => number): Part[] {
  const faces = facesOf(list);
  const parts = new Map<string | undefined, number[]>();
  for (const index of order) {
    const name = faces[index]!.piece?.name;
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
