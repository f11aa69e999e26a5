import type { Turn } from '../measure/matrix';
import { leanOf, numbersOf } from './drawn';
import type { Page, Spine } from '../model/page';
import { gridOf, rescue, RescueError, SCAN_ORDERS, type Arrangement, type TurnedScans } from './rescue';
import { splitPage } from './split';
import { scanOf } from './straighten';
import type { Surveys } from '../model/survey';
import { turnPage } from './turn';
import { entryAt } from '../entries';

/** A proposal for the order of scans, and how well what is printed on them bears it out. */
export interface Proposal {
  arrangement: Arrangement;
  /** Turns of single scans, counted from 1. */
  turned: TurnedScans[];
  /** From the numbers read on the pages, or only from how many scans there are and how they lie. */
  from: 'numbers' | 'shape';
  /** The printed number of position 1, less 1. */
  offset: number;
  /** Positions of the result, from 1, whose printed number agrees, does not, or was not found. */
  agree: number[];
  differ: number[];
  unread: number[];
  /** Scans, from 1, on which no number and no word tells how they lie; `mixed` where others lie this way and that, so that it cannot be guessed. */
  unsure: number[];
  mixed: boolean;
  /** What told of each scan which way up it lies. */
  told: Telling[];
}
/** Numbers on a scan, or its words; that it is blank; how the others lie that are as wide or as high; or nothing but its shape. */
export type Telling = 'numbers' | 'words' | 'blank' | 'others' | 'shape';

/** Folios stand within this share of the page's height from its head or foot. */
const FOLIO_ZONE = 0.16;

/** How much of what sorting explains a regular order must explain to be preferred. */
const CLEARLY = 0.75;

/** Proposes how scans go back into reading order; undefined for none. */
export function workOutOrder(scans: readonly Page[], surveys: Surveys, spine: Spine): Proposal | undefined {
  if (!scans.length) return undefined;
  const lie = turnsOf(scans, surveys, spine);
  const { turned } = lie;
  const upright = scans.map((scan, n) =>
    turnPage(scan, turned.find((each) => each.scans.includes(n + 1))?.by ?? 0),
  );
  const candidates: Arrangement[] = [
    ...SCAN_ORDERS.map((order): Arrangement => ({ by: 'stitched', scans: order })),
    { by: 'spreads' },
  ];
  const judged = candidates.flatMap((arrangement) => judge(upright, arrangement, surveys, spine) ?? []);
  const regular = judged.reduce<Judged | undefined>(
    (a, b) => (a && a.agree.length >= b.agree.length ? a : b),
    undefined,
  );
  const sorted = ownOrder(upright, surveys, spine);
  // Sorting suits any numbers, misread ones too: it is only for sets that no regular order explains.
  const best = sorted && sorted.agree.length * CLEARLY > (regular?.agree.length ?? 0) ? sorted : regular;
  if (best?.agree.length) return { ...best, ...lie, from: 'numbers' };
  // Two sides a sheet: an even number is that of stitched sheets; an odd one can only be spreads.
  const arrangement: Arrangement = scans.length % 2 ? { by: 'spreads' } : { by: 'stitched', scans: 'sheets' };
  const { columns, rows } = gridOf(arrangement, spine);
  const unread = Array.from({ length: scans.length * columns * rows }, (_, n) => n + 1);
  return { arrangement, ...lie, from: 'shape', offset: 0, agree: [], differ: [], unread };
}

type Judged = Omit<Proposal, 'turned' | 'from' | 'unsure' | 'mixed' | 'told'>;

/** The folios on a page, the one nearest to its head or foot first. */
export function foliosOf(page: Page, surveys: Surveys): number[] {
  const { height } = page.trim;
  return numbersOf(page, surveys)
    .map((number) => ({ ...number, inside: Math.min(number.y, height - number.y) }))
    .filter(({ turn, inside }) => turn === 0 && inside < height * FOLIO_ZONE)
    .sort((a, b) => a.inside - b.inside)
    .map(({ value }) => value);
}

/** How an arrangement's positions agree with the folios on the pages. Undefined if it cannot be. */
function judge(
  scans: readonly Page[],
  arrangement: Arrangement,
  surveys: Surveys,
  spine: Spine,
): Judged | undefined {
  try {
    const cuts = { ...gridOf(arrangement, spine), gutter: 0 };
    const parts = scans.map((scan) => splitPage(scan, cuts, false) ?? []);
    const folios = rescue(scans.length, arrangement, spine).map(({ scan, part, turn }) =>
      foliosOf(turnPage(entryAt(entryAt(parts, scan), part), turn), surveys),
    );
    return { arrangement, ...agreement(folios) };
  } catch (error) {
    if (error instanceof RescueError) return undefined;
    throw error;
  }
}

/** How folios, page by page, agree with counting up from the number that suits most of them. */
export function agreement(folios: readonly (readonly number[])[]): Omit<Judged, 'arrangement'> {
  const votes = new Map<number, number>();
  folios.forEach((values, n) => {
    for (const value of new Set(values)) votes.set(value - n - 1, (votes.get(value - n - 1) ?? 0) + 1);
  });
  const [offset] = [...votes].reduce((a, b) => (b[1] > a[1] ? b : a), [0, 0]);
  const result: Omit<Judged, 'arrangement'> = { offset, agree: [], differ: [], unread: [] };
  folios.forEach((values, n) => {
    const where = !values.length
      ? result.unread
      : values.includes(n + 1 + offset)
        ? result.agree
        : result.differ;
    where.push(n + 1);
  });
  return result;
}

/** The parts in the order of their folios, where each has one: a set with sheets missing, doubled or shuffled. */
function ownOrder(scans: readonly Page[], surveys: Surveys, spine: Spine): Judged | undefined {
  const grid = gridOf({ by: 'spreads' }, spine);
  const parts = scans.flatMap((scan) => splitPage(scan, { ...grid, gutter: 0 }, false) ?? []);
  const folios = parts.map((part) => foliosOf(part, surveys)[0]);
  const read = folios.filter((folio) => folio !== undefined);
  // Without most of its numbers a set cannot be sorted by them.
  if (read.length < parts.length * 0.75) return undefined;
  const key = withGuesses(folios, scans.length);
  const order = parts.map((_, n) => n + 1).sort((a, b) => entryAt(key, a - 1) - entryAt(key, b - 1) || a - b);
  const sorted = order.map((part) => folios[part - 1]);
  const result: Judged = {
    arrangement: { by: 'own', ...grid, order },
    offset: 0,
    agree: [],
    differ: [],
    unread: [],
  };
  // Here a number agrees where it is higher than the one before it.
  let last = -Infinity;
  sorted.forEach((folio, n) => {
    if (folio === undefined) result.unread.push(n + 1);
    else {
      (folio > last ? result.agree : result.differ).push(n + 1);
      last = folio;
    }
  });
  result.offset = (sorted.find((folio) => folio !== undefined) ?? 1) - 1;
  return result;
}

/** A page without a number is given the one that its neighbour on the scan leaves it: their sum is the same on most scans. */
function withGuesses(folios: readonly (number | undefined)[], scans: number): number[] {
  const sums = new Map<number, number>();
  for (let n = 0; n < scans; n++) {
    const [a, b] = [folios[2 * n], folios[2 * n + 1]];
    if (a !== undefined && b !== undefined) sums.set(a + b, (sums.get(a + b) ?? 0) + 1);
  }
  const [sum] = [...sums].reduce((a, b) => (b[1] > a[1] ? b : a), [0, 0]);
  return folios.map((folio, n) => folio ?? sum - (folios[n % 2 ? n - 1 : n + 1] ?? 0));
}

/** Which scans must be turned: as their numbers stand, else their words; one without either like the most of those that lie as it does. */
function turnsOf(
  scans: readonly Page[],
  surveys: Surveys,
  spine: Spine,
): Pick<Proposal, 'turned' | 'unsure' | 'mixed' | 'told'> {
  const wide = spine !== 'head';
  const lies = ({ trim }: Page) => trim.width >= trim.height;
  const byNumbers = scans.map((scan) => commonest(numbersOf(scan, surveys).map(({ turn }) => turn)));
  const seen = scans.map((scan, n) => byNumbers[n] ?? leanOf(scan, surveys));
  const like = (scan: Page) =>
    commonest(
      seen.flatMap((turn, n) => (turn !== undefined && lies(entryAt(scans, n)) === lies(scan) ? [turn] : [])),
    );
  const turns = scans.map((scan, n): Turn => seen[n] ?? like(scan) ?? (lies(scan) === wide ? 0 : 90));
  return {
    turned: ([90, 180, 270] as const).flatMap((by) => {
      const those = turns.flatMap((turn, n) => (turn === by ? [n + 1] : []));
      return those.length ? [{ scans: those, by }] : [];
    }),
    // Of a blank one it is the same which way up it lies.
    unsure: seen.flatMap((turn, n) =>
      turn === undefined && !scanOf(entryAt(scans, n), surveys)?.blank ? [n + 1] : [],
    ),
    told: scans.map((scan, n) => {
      if (byNumbers[n] !== undefined) return 'numbers';
      if (seen[n] !== undefined) return 'words';
      if (scanOf(scan, surveys)?.blank) return 'blank';
      return like(scan) === undefined ? 'shape' : 'others';
    }),
    mixed: new Set(seen.filter((turn) => turn !== undefined)).size > 1,
  };
}

function commonest(turns: readonly Turn[]): Turn | undefined {
  const counts = new Map<Turn, number>();
  for (const turn of turns) counts.set(turn, (counts.get(turn) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0];
}
