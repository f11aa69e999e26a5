import type { Docket } from './docket';
import { entryAt } from '../entries';

/** Parts of a docket that are lists of things with ids. */
type ListKey = 'steps' | 'formats' | 'outputs';
const LISTS: readonly ListKey[] = ['steps', 'formats', 'outputs'];

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/**
 * Puts together what two people made of one docket, each without knowing of the other. Every part that only one of them
 * changed is taken as that one left it; what both changed alike is taken once. Undefined if both changed the same part
 * differently, or one changed what the other removed: then only people can say what is meant.
 */
export function mergeDockets(base: Docket, mine: Docket, theirs: Docket): Docket | undefined {
  const merged: Record<string, unknown> = {};
  for (const key of new Set([...Object.keys(base), ...Object.keys(mine), ...Object.keys(theirs)])) {
    const [was, here, there] = [base, mine, theirs].map((each) => each[key as keyof Docket]);
    const part = (LISTS as readonly string[]).includes(key)
      ? mergeLists(was as Item[], here as Item[], there as Item[])
      : pick(was, here, there);
    if (part === CLASH) return undefined;
    merged[key] = part;
  }
  return merged as Docket;
}

const CLASH = Symbol('both changed it');

function pick(was: unknown, here: unknown, there: unknown): unknown {
  if (same(here, there) || same(there, was)) return here;
  return same(here, was) ? there : CLASH;
}

interface Item {
  id?: string | undefined;
  kind?: string;
}
/** An output that is the only one of its kind may have no id. */
const idOf = (item: Item): string => item.id ?? item.kind ?? '';
const byId = (list: readonly Item[]): Map<string, Item> => new Map(list.map((item) => [idOf(item), item]));

/** Things keep the order of the one who changed it; what the other one added comes after what it stood after, or at the end. */
function mergeLists(was: readonly Item[], here: readonly Item[], there: readonly Item[]): unknown {
  const [old, mine, theirs] = [byId(was), byId(here), byId(there)];
  const orderIn = (list: readonly Item[]) =>
    list.map(idOf).filter((id) => old.has(id) && mine.has(id) && theirs.has(id));
  const [moved, movedToo] = [here, there].map((list) => !same(orderIn(list), orderIn(was)));
  if (moved && movedToo && !same(orderIn(here), orderIn(there))) return CLASH;
  const [lead, other] = moved ? [here, there] : [there, here];
  const order = lead.map(idOf);
  other.map(idOf).forEach((id, n, ids) => {
    if (order.includes(id)) return;
    if (ids.slice(n).every((each) => !old.has(each))) order.push(id);
    else order.splice(n ? order.indexOf(entryAt(ids, n - 1)) + 1 : 0, 0, id);
  });
  const items = order.map((id) => mergeItem(old.get(id), mine.get(id), theirs.get(id)));
  return items.includes(CLASH) ? CLASH : items.filter(Boolean);
}

/** One thing of a list; undefined if it is removed. */
function mergeItem(was: Item | undefined, here: Item | undefined, there: Item | undefined): unknown {
  if (!was) return here && there ? pick(undefined, here, there) : (here ?? there);
  if (!here) return same(there, was) || !there ? undefined : CLASH;
  if (!there) return same(here, was) ? undefined : CLASH;
  return pick(was, here, there);
}
