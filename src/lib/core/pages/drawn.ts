import type { Box } from '../measure/box';
import { applyToBox } from '../measure/matrix';
import type { Page } from './page';
import type { Drawn, Surveys } from './survey';

const drawnOf = ({ art }: Page, surveys: Surveys): Drawn | undefined =>
  art && surveys[art.source]?.pages[art.index]?.drawn;

/** False while the source that a page shows has not been measured. */
export const isMeasured = (page: Page, surveys: Surveys): boolean =>
  !page.art || drawnOf(page, surveys) !== undefined;

/** Bounds in page space of all that is drawn on a page, white left out; undefined where nothing is, or nothing is measured. */
export function inkOf(page: Page, surveys: Surveys): Box | undefined {
  const ink = drawnOf(page, surveys)?.ink;
  return ink && applyToBox(page.art!.place, ink);
}

/** Bounds in page space of the text on a page. */
export function textOf(page: Page, surveys: Surveys): Box | undefined {
  const text = drawnOf(page, surveys)?.text;
  return text && applyToBox(page.art!.place, text);
}

/** The resolution, in pixels an inch, that the coarsest image of a page has at the size it is printed. */
export function effectivePpi(page: Page, surveys: Surveys): number | undefined {
  const ppi = drawnOf(page, surveys)?.ppi;
  if (ppi === undefined) return undefined;
  const [a, b, c, d] = page.art!.place;
  return ppi / Math.max(Math.hypot(a, b), Math.hypot(c, d));
}
