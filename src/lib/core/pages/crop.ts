import { grow, heightOf, sizeBox, widthOf, type Box, type Sides } from '../measure/box';
import { translate } from '../measure/matrix';
import { movePage, withOwn } from './page';
import type { Page } from '../model/page';

/** Less trim than this on a side, in points, is no page. */
const LEAST = 1;

/**
 * The page with `cut` taken off the four sides of its trim. The content keeps its place and its size; what falls outside
 * is hidden, never removed, and serves as bleed as far as it reaches. Undefined if nothing would be left.
 */
export function cropPage(page: Page, cut: Sides): Page | undefined {
  const width = page.trim.width - cut.left - cut.right;
  const height = page.trim.height - cut.head - cut.foot;
  if (width < LEAST || height < LEAST) return undefined;
  const known = { ...page, whole: page.whole ?? sizeBox(page.trim) };
  return withOwn(movePage(known, translate(-cut.left, -cut.foot), { width, height }), 'trim');
}

/** The page as large as before anything was cropped away; the same page if nothing was. */
export function uncropPage(page: Page): Page {
  if (!page.whole) return page;
  const { whole, ...rest } = page;
  const size = { width: widthOf(whole), height: heightOf(whole) };
  return withOwn(movePage(rest, translate(-whole.x0, -whole.y0), size), 'trim');
}

/** What must be cut off the four sides so that a box in page space, grown by `padding`, is left; nothing if it reaches beyond the trim. */
export function cutTo(page: Page, box: Box, padding: number): Sides {
  const wanted = grow(box, { left: padding, right: padding, head: padding, foot: padding });
  return {
    left: Math.max(0, wanted.x0),
    right: Math.max(0, page.trim.width - wanted.x1),
    head: Math.max(0, page.trim.height - wanted.y1),
    foot: Math.max(0, wanted.y0),
  };
}
