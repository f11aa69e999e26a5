import type { Size } from '../measure/box';
import { sameSize } from '../paper/sizes';
import type { Page } from '../model/page';
import { entryAt, firstOf } from '../entries';

/** The size most pages of the list have; the earlier one wins a draw. Undefined for an empty list. */
export function commonestSize(pages: readonly Page[]): Size | undefined {
  return sizeGroups(pages)[0]?.size;
}

/** Pages grouped by trim size (tolerance SIZE_TOLERANCE, orientation counted) and rotation where it is given, largest group first. */
export function sizeGroups<T extends { trim: Size; rotate?: number }>(
  pages: readonly T[],
): { size: Size; indexes: number[] }[] {
  const groups: { size: Size; indexes: number[] }[] = [];
  pages.forEach(({ trim, rotate }, index) => {
    const group = groups.find(
      ({ size, indexes }) => sameSize(size, trim) && entryAt(pages, firstOf(indexes)).rotate === rotate,
    );
    if (group) group.indexes.push(index);
    else groups.push({ size: trim, indexes: [index] });
  });
  return groups.sort((a, b) => b.indexes.length - a.indexes.length);
}

/** The pages of each piece, those of none together. */
export function piecesOf(pages: readonly Page[]): Page[][] {
  const found = new Map<string | undefined, Page[]>();
  for (const page of pages) {
    const known = found.get(page.piece?.name);
    if (known) known.push(page);
    else found.set(page.piece?.name, [page]);
  }
  return [...found.values()];
}

/** The pages of one piece whose size is not that of `like`, by default the commonest; none if all are alike. */
export function oddOnes(
  pages: readonly Page[],
  like = commonestSize(pages),
): { like: Size; pages: Page[] } | undefined {
  const odd = like ? pages.filter(({ trim }) => !sameSize(trim, like)) : [];
  return like && odd.length ? { like, pages: odd } : undefined;
}

/** Sizes that differ by less than this share of the second are nearly one: of scans each lies a little otherwise. */
const NEARLY = 0.04;
export const isNearly = (a: Size, b: Size): boolean =>
  Math.abs(a.width / b.width - 1) < NEARLY && Math.abs(a.height / b.height - 1) < NEARLY;
