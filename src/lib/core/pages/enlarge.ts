import { compose, scale, translate } from '../measure/matrix';
import { artBox, bleedSides, movePage } from './page';
import type { Page, Side } from '../model/page';

/**
 * How much the art must be enlarged about the middle of the page to reach the bleed on every side: 1 where it does
 * already. Undefined if no enlarging makes it reach: there is no art, or it ends short of the middle.
 */
export function enlargeScale(page: Page, side: Side): number | undefined {
  const art = artBox(page);
  if (!art) return undefined;
  const sides = bleedSides(page.bleed, side);
  const [x, y] = [page.trim.width / 2, page.trim.height / 2];
  const wanted: [reach: number, needed: number, bleed: number][] = [
    [x - art.x0, x + sides.left, sides.left],
    [art.x1 - x, x + sides.right, sides.right],
    [art.y1 - y, y + sides.head, sides.head],
    [y - art.y0, y + sides.foot, sides.foot],
  ];
  let most = 1;
  for (const [reach, needed, bleed] of wanted) {
    if (!bleed) continue;
    if (reach <= 0) return undefined;
    most = Math.max(most, needed / reach);
  }
  return most;
}

/** The page with its art enlarged about its middle until it reaches the bleed, where enlarging can do that. */
export function enlargeToBleed(page: Page, side: Side): Page {
  const by = enlargeScale(page, side);
  if (by === undefined || by === 1) return page;
  const [x, y] = [page.trim.width / 2, page.trim.height / 2];
  const matrix = compose(compose(translate(-x, -y), scale(by)), translate(x, y));
  return movePage(page, matrix, page.trim);
}
