import { bounds, hasArea, intersect, sizeBox, type Box } from '../measure/box';
import { applyToBox, applyToPoint, turnIn, turnOf, type Turn } from '../measure/matrix';
import { artsOf } from './page';
import type { Art } from '../model/art';
import type { Page } from '../model/page';
import type { Drawn, ReadNumber, Surveys } from '../model/survey';

const drawnOf = ({ source, index }: Art, surveys: Surveys): Drawn | undefined =>
  surveys[source]?.pages[index]?.drawn;

/** Of what is drawn on a page, what steps read; the rest is for findings. */
export const readBySteps = ({ ink, numbers, leans, scan }: Drawn): Drawn => ({
  ...(leans !== undefined && { leans }),
  ...(ink && { ink }),
  ...(numbers && { numbers }),
  ...(scan && { scan }),
});

/** False while a source that a page shows has not been measured. */
export const isMeasured = (page: Page, surveys: Surveys): boolean =>
  artsOf(page).every((art) => drawnOf(art, surveys) !== undefined);

/** Bounds in page space of all that is drawn on a page, white left out; undefined if nothing is, or nothing is measured. */
export const inkOf = (page: Page, surveys: Surveys): Box | undefined => boundsOf(page, surveys, 'ink');

/** Bounds in page space of the text on a page. */
export const textOf = (page: Page, surveys: Surveys): Box | undefined => boundsOf(page, surveys, 'text');

function boundsOf(page: Page, surveys: Surveys, of: 'ink' | 'text'): Box | undefined {
  const found = artsOf(page).flatMap((art): Box[] => {
    const box = drawnOf(art, surveys)?.[of];
    // Of a page that was cut up, only what lies within this part.
    const shown = box && art.cut ? intersect(box, art.reach) : box;
    return shown && hasArea(shown) ? [applyToBox(art.place, shown)] : [];
  });
  return found.length ? bounds(found) : undefined;
}

/** Bounds in page space of what stands on a page by itself: blocks of text, images, and where asked for, drawings. */
export const objectsOf = (page: Page, surveys: Surveys, paths = false): Box[] =>
  artsOf(page).flatMap((art) =>
    (drawnOf(art, surveys)?.objects ?? []).flatMap(({ kind, box }): Box[] => {
      const shown = intersect(box, art.reach);
      return (paths || kind !== 'path') && hasArea(shown) ? [applyToBox(art.place, shown)] : [];
    }),
  );

/** Numbers that stand alone on a page, in page space, turned as the page is now. */
export function numbersOf(page: Page, surveys: Surveys): ReadNumber[] {
  return artsOf(page).flatMap((art): ReadNumber[] => {
    const turned = turnIn(art.place);
    return (drawnOf(art, surveys)?.numbers ?? []).flatMap(({ x, y, turn, ...read }): ReadNumber[] => {
      const at = applyToPoint(art.place, x, y);
      // What lies beyond the trim is a neighbour's, or a printer's mark.
      if (!holds(art.reach, { x, y }) || !holds(sizeBox(page.trim), at)) return [];
      return [{ ...read, ...at, turn: turnOf(turn - turned)! }];
    });
  });
}

const holds = ({ x0, y0, x1, y1 }: Box, { x, y }: { x: number; y: number }): boolean =>
  x >= x0 && x <= x1 && y >= y0 && y <= y1;

/** The clockwise turn of a page as it is now that sets most of its words upright; undefined if it has none. */
export function leanOf(page: Page, surveys: Surveys): Turn | undefined {
  const [art] = artsOf(page);
  const leans = art && drawnOf(art, surveys)?.leans;
  return leans === undefined ? undefined : turnOf(leans - turnIn(art!.place));
}

/** The resolution, in pixels an inch, that the coarsest image of a page has at the size it is printed. */
export function effectivePpi(page: Page, surveys: Surveys): number | undefined {
  const all = artsOf(page).flatMap((art): number[] => {
    const ppi = drawnOf(art, surveys)?.ppi;
    const [a, b, c, d] = art.place;
    return ppi === undefined ? [] : [ppi / Math.max(Math.hypot(a, b), Math.hypot(c, d))];
  });
  return all.length ? Math.min(...all) : undefined;
}
