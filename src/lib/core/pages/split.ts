import { hasArea, heightOf, intersect, widthOf, type Box } from '../measure/box';
import { mm } from '../measure/unit';
import { applyToBox, invert, translate } from '../measure/matrix';
import { artBox, artsOf, movePage } from './page';
import type { Art } from '../model/art';
import type { Page } from '../model/page';
import { entryAt } from '../entries';

/** How a page is cut up; see the step `split`. Lengths in points. */
export interface Cuts {
  columns: number;
  rows: number;
  at?: number | undefined;
  gutter: number;
}

/** A part smaller than this on a side, in points, is no page. */
const LEAST = 1;
/** What both parts show of a picture that is cut, as a form begins: enough for a fold that is not exact, by practice. */
export const SHOWN_TWICE = mm(3);

/**
 * The parts of a page in reading order, row by row from the left, or from the right where `fromRight`. What lies beyond a
 * cut is no bleed. Undefined if a cut falls outside the page or leaves nothing.
 */
export function splitPage(page: Page, cuts: Cuts, fromRight: boolean): Page[] | undefined {
  const { width, height } = page.trim;
  const xs = spans(width, cuts.columns, cuts.rows === 1 ? cuts.at : undefined, cuts.gutter);
  // From the head down, while page space runs upwards.
  const ys = spans(height, cuts.rows, cuts.columns === 1 ? cuts.at : undefined, cuts.gutter)?.map(
    ([from, to]): Span => [height - to, height - from],
  );
  if (!xs || !ys) return undefined;
  const across = fromRight ? [...xs].reverse() : xs;
  const boxes = ys.flatMap(([y0, y1]) => across.map(([x0, x1]): Box => ({ x0, y0, x1, y1 })));
  return boxes.map((box, n) => partOf(page, box, `${page.id}/${n + 1}`));
}

type Span = [from: number, to: number];

/** One axis cut into `count` spans; undefined if that leaves nothing of one. */
function spans(length: number, count: number, at: number | undefined, gutter: number): Span[] | undefined {
  const cuts =
    count === 2 && at !== undefined
      ? [0, at, length]
      : Array.from({ length: count + 1 }, (_, n) => (n * length) / count);
  const found = cuts
    .slice(1)
    .map((to, n): Span => [n ? entryAt(cuts, n) + gutter / 2 : 0, n < count - 1 ? to - gutter / 2 : length]);
  return found.every(([from, to]) => to - from >= LEAST && from >= 0 && to <= length) ? found : undefined;
}

/** The part of a page within a box of its page space, as a page of its own. */
export function partOf(page: Page, box: Box, id: string): Page {
  const { width, height } = page.trim;
  // At its outer edges the part keeps what the page has beyond its trim, and no more: of a page set straight, what is kept far out comes in elsewhere.
  const all = artBox(page) ?? box;
  const open: Box = {
    x0: box.x0 <= 0 ? Math.min(0, all.x0) : box.x0,
    y0: box.y0 <= 0 ? Math.min(0, all.y0) : box.y0,
    x1: box.x1 >= width ? Math.max(width, all.x1) : box.x1,
    y1: box.y1 >= height ? Math.max(height, all.y1) : box.y1,
  };
  const size = { width: widthOf(box), height: heightOf(box) };
  const { whole: _w, label: _l, art: _a, more: _m, margins: _g, columns: _c, kept: _k, ...rest } = page;
  const arts = artsOf(page).flatMap((one): Art[] => {
    const reach = intersect(one.reach, applyToBox(invert(one.place), open));
    return hasArea(reach) ? [{ ...one, reach, cut: true }] : [];
  });
  const cut = (bleed: number, inner: boolean) => (inner ? 0 : bleed);
  const bleed: Page['bleed'] =
    page.bleed.by === 'side'
      ? {
          by: 'side',
          left: cut(page.bleed.left, box.x0 > 0),
          right: cut(page.bleed.right, box.x1 < width),
          head: cut(page.bleed.head, box.y1 < height),
          foot: cut(page.bleed.foot, box.y0 > 0),
        }
      : page.bleed;
  return movePage({ ...rest, id, bleed, ...withArts(arts) }, translate(-box.x0, -box.y0), size);
}

/** What a page shows, as its two fields. */
export const withArts = ([art, ...more]: readonly Art[]): Pick<Page, 'art' | 'more'> => ({
  ...(art ? { art } : {}),
  ...(more.length ? { more } : {}),
});
