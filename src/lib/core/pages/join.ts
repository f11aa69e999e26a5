import { applyToBox, compose, invert, translate } from '../measure/matrix';
import { intersect, sizeBox } from '../measure/box';
import { artsOf } from './page';
import type { Page } from '../model/page';
import { withArts } from './split';
import { firstOf } from '../entries';

/**
 * Pages on one page, row by row from the left, or from the right where `fromRight`. Each cell is as large as the largest of
 * them, and a smaller page stands in its middle. Bleed between them is left out.
 */
export function joinPages(
  pages: readonly Page[],
  { columns, rows, gap }: { columns: number; rows: number; gap: number },
  id: string,
  fromRight: boolean,
): Page {
  const width = Math.max(...pages.map(({ trim }) => trim.width));
  const height = Math.max(...pages.map(({ trim }) => trim.height));
  const size = { width: columns * width + (columns - 1) * gap, height: rows * height + (rows - 1) * gap };
  const arts = pages.flatMap((page, n) => {
    const [row, place] = [Math.floor(n / columns), n % columns];
    const column = fromRight ? columns - 1 - place : place;
    const x = column * (width + gap) + (width - page.trim.width) / 2;
    const y = size.height - (row + 1) * height - row * gap + (height - page.trim.height) / 2;
    return artsOf(page).map((one) => ({
      ...one,
      place: compose(one.place, translate(x, y)),
      cut: true as const,
      reach: intersect(one.reach, applyToBox(invert(one.place), sizeBox(page.trim))),
    }));
  });
  const { piece } = firstOf(pages);
  const none = { head: 0, foot: 0, spine: 0, fore: 0 };
  return { id, trim: size, bleed: { by: 'edge', ...none }, ...(piece ? { piece } : {}), ...withArts(arts) };
}
