import type { Box, Size } from '../measure/box';
import { applyToBox, type Matrix, translate } from '../measure/matrix';
import { sizeBox } from '../measure/box';
import { sameSize } from '../paper/sizes';
import { resizeMatrix, type FixedPoint } from './resize';
import type { Page, PageList, Side } from '../model/page';
import { entryAt, entryOf } from '../entries';

/** How many pages that are in both lists have another size in the second. */
export function sizesChanged(before: PageList, after: PageList): number {
  const was = new Map(before.pages.map(({ id, trim }) => [id, trim]));
  return after.pages.filter(({ id, trim }) => was.has(id) && !sameSize(entryOf(was, id), trim)).length;
}

/**
 * Where the old trim of a page lies, at its real size, in the page space of what became of it: where the content shows it,
 * when that kept its size; else about the point that stayed put. Undefined if the size is the same.
 */
export function oldTrim(before: Page, after: Page, fixed: FixedPoint, side: Side): Box | undefined {
  if (sameSize(before.trim, after.trim)) return undefined;
  const held = heldAt(before, after);
  return applyToBox(
    held ?? resizeMatrix(before.trim, after.trim as Size, 'hold', fixed, side),
    sizeBox(before.trim),
  );
}

/** How the content moved, where moving is all it did; a blank is where its crop says. */
function heldAt(before: Page, after: Page): Matrix | undefined {
  if (!before.art || !after.art) {
    const { whole } = after;
    return whole && translate(whole.x0 - (before.whole?.x0 ?? 0), whole.y0 - (before.whole?.y0 ?? 0));
  }
  const [was, is] = [before.art.place, after.art.place];
  if (![0, 1, 2, 3].every((i) => Math.abs(entryAt(was, i) - entryAt(is, i)) < 1e-9)) return undefined;
  return translate(is[4] - was[4], is[5] - was[5]);
}
