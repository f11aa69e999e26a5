/*
 * Reading an entry that must be there. Each throws where it is not, so that a slip in our own sums stops at its place instead of
 * going on as `undefined` and showing itself far away, or as NaN on paper.
 */

const missing = (what: string): never => {
  throw new Error(`${what} is not there: a fault of the program`);
};

/** The entry at an index (from 0). Throws where the list has none. */
export const entryAt = <T>(list: ArrayLike<T>, index: number): Exclude<T, undefined> => {
  const entry = list[index];
  return entry === undefined ? missing(`entry ${index} of ${list.length}`) : (entry as Exclude<T, undefined>);
};

/** The first entry. Throws where the list is empty. */
export const firstOf = <T>(list: ArrayLike<T>): Exclude<T, undefined> => entryAt(list, 0);

/** The last entry. Throws where the list is empty. */
export const lastOf = <T>(list: ArrayLike<T>): Exclude<T, undefined> => entryAt(list, list.length - 1);

/** What a map holds under a key. Throws where it holds nothing. */
export const entryOf = <K, V>(map: { get(key: K): V }, key: K): Exclude<V, undefined> => {
  const entry = map.get(key);
  return entry === undefined ? missing(`entry ${String(key)}`) : (entry as Exclude<V, undefined>);
};

/** The first entry that fits. Throws where none does. */
export const foundIn = <T>(list: readonly T[], fits: (entry: T) => boolean): T => {
  const index = list.findIndex(fits);
  return index < 0 ? missing(`an entry that fits, among ${list.length},`) : (list[index] as T);
};

/** Numbers with room at an index: the same, or what is at least twice as long and begins with them; the rest is 0. */
export function withRoom<Numbers extends Uint8Array | Float64Array>(
  numbers: Numbers,
  index: number,
): Numbers {
  if (index < numbers.length) return numbers;
  const Longer = numbers.constructor as new (length: number) => Numbers;
  const longer = new Longer(Math.max(index + 1, 2 * numbers.length));
  longer.set(numbers);
  return longer;
}

/** Both of a pair, each by the same rule. */
export const both = <T, U>([one, two]: readonly [T, T], rule: (each: T) => U): [U, U] => [
  rule(one),
  rule(two),
];

/** A thing with other fields of its own kind. */
export const changed = <T extends object>(thing: T, fields: Partial<T>): T => ({ ...thing, ...fields });

/** A thing that began as `was`, with what it still has of that as `now` has it. */
export function refreshed<T extends object>(thing: T, was: T, now: T): T {
  const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);
  const keys = new Set([...keysOf(was), ...keysOf(now)]);
  return Object.assign(
    { ...thing },
    ...[...keys].flatMap((key) => (same(thing[key], was[key]) ? [{ [key]: now[key] }] : [])),
  ) as T;
}

/** The names of an object's fields, for objects that hold nothing besides what their type says. */
export const keysOf = <T extends object>(thing: T): (keyof T & string)[] =>
  Object.keys(thing) as (keyof T & string)[];

/** An object's fields with their names, for objects that hold nothing besides what their type says. */
export const entriesOf = <T extends object>(thing: T): [keyof T & string, T[keyof T]][] =>
  Object.entries(thing) as [keyof T & string, T[keyof T]][];

/** An entry for each key. */
export const recordOf = <K extends string, V>(keys: readonly K[], entry: (key: K) => V): Record<K, V> =>
  Object.fromEntries(keys.map((key) => [key, entry(key)])) as Record<K, V>;

/** Whether a name is that of one of an object's own fields. */
export const isKeyOf = <T extends object>(thing: T, key: PropertyKey): key is keyof T =>
  Object.hasOwn(thing, key);
