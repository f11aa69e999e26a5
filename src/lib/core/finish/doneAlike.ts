import { alikeKey } from './alike';

/** Things that are done alike to several sheets: once, with the numbers of those sheets, in the order of the first of them. */
export function doneAlike<T extends { sheets: readonly number[] }>(all: readonly T[]): T[] {
  const known = new Map<string, T & { sheets: number[] }>();
  for (const each of all) {
    const { sheets, ...rest } = each;
    const key = alikeKey(rest);
    const alike = known.get(key);
    if (alike) alike.sheets.push(...sheets);
    else known.set(key, { ...each, sheets: [...sheets] });
  }
  return [...known.values()];
}
