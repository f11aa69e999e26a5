import {
  type Cell,
  type FaceChange,
  type FaceChanges,
  type HandResult,
  type PlannedPage,
  type Sheet,
} from './plan';
import type { ByHand, CellAt } from './pressTerms';
import { entryOf } from '../entries';

interface Held extends FaceChange {
  at: CellAt;
  plain: Cell;
}

/**
 * Carries out changes by hand, one after another, on sheets as the scheme has them. The scheme's folding put every page in
 * the cell where the finished piece shows it; so what a cell shows now is what is met in that page's place.
 */
export function changeByHand(
  plain: readonly Sheet[],
  changes: readonly ByHand[],
  layAgain: (sheet: number, changes: FaceChanges) => Sheet,
): HandResult & { sheets: readonly Sheet[] } {
  const held = new Map<string, Held>();
  const find = (at: CellAt): Held | undefined => {
    const key = `${at.sheet} ${at.side} ${at.cell}`;
    const cell = plain[at.sheet - 1]?.[at.side]?.cells[at.cell - 1];
    if (!cell) return undefined;
    const known = held.get(key) ?? { at, plain: cell, planned: plannedOf(cell), turned: false, out: false };
    held.set(key, known);
    return known;
  };
  const gone: number[] = [];
  changes.forEach((change, n) => {
    const one = find(change.at);
    const other = change.do === 'swap' ? find(change.with) : one;
    if (!one || !other) gone.push(n);
    else if (change.do === 'turn') one.turned = !one.turned;
    else if (change.do === 'leave-out') one.out = true;
    else {
      const { planned, out } = one;
      Object.assign(one, { planned: other.planned, out: other.out });
      Object.assign(other, { planned, out });
    }
  });
  const altered = [...held.values()].filter(
    ({ plain, planned, turned, out }) => turned || out || planned.position !== plain.position,
  );
  const bySheet = new Map<number, FaceChanges>();
  for (const { at, planned, turned, out } of altered) {
    const sides = bySheet.get(at.sheet - 1) ?? { front: new Map(), back: new Map() };
    sides[at.side].set(at.cell - 1, { planned, turned, out });
    bySheet.set(at.sheet - 1, sides);
  }
  return {
    sheets: plain.map((sheet, n) => (bySheet.has(n) ? layAgain(n, entryOf(bySheet, n)) : sheet)),
    changed: altered.map(({ at, plain, planned, turned, out }) => ({
      at,
      place: plannedOf(plain),
      turned,
      ...(out ? {} : { shows: planned }),
    })),
    gone,
  };
}

const plannedOf = ({ position, name, label, side, page }: Cell): PlannedPage => ({
  position,
  name,
  label,
  side,
  ...(page ? { page } : {}),
});

export const sameCell = (a: CellAt, b: CellAt): boolean =>
  a.sheet === b.sheet && a.side === b.side && a.cell === b.cell;
