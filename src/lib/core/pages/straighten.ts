import { sizeBox, type Box, type Size } from '../measure/box';
import { median } from '../measure/median';
import { mm } from '../measure/unit';
import { applyToBox, compose, turnBack, turnIn, type Matrix } from '../measure/matrix';
import type { Page } from '../model/page';
import type { Drawn, Surveys } from '../model/survey';
import { artsOf, movePage, withOwn } from './page';
import { isNearly } from './sizes';

/** What is made of scans once they lie straight. */
export interface Straightening {
  /** Degrees clockwise by which they lie askew, for all of them; measured on each where missing. */
  by?: number | undefined;
  /** They end where their paper does, and a fold comes to lie in the middle; else they keep their size. */
  toPaper: boolean;
  /** All get the size that their papers have as a rule. */
  alike: boolean;
}

/** A scan as it was measured: nothing of a page that is none. */
export function scanOf(page: Page, surveys: Surveys): Drawn['scan'] {
  const [art, more] = artsOf(page);
  return art && !more ? surveys[art.source]?.pages[art.index]?.drawn?.scan : undefined;
}

/** A paper with its fold, in page space. */
interface Lying {
  page: Page;
  paper: Box;
  /** How far from the left, or from the foot where `upright`, it folds. */
  fold?: number;
  /** The page is higher than wide, so that a fold runs across. */
  upright: boolean;
}

/** Scans set straight: each is turned back about its middle, nothing is drawn anew. Pages that are no scans stay as they are. */
export function straightened(pages: readonly Page[], surveys: Surveys, how: Straightening): Page[] {
  const lying = pages.map((page) => layOf(page, surveys, how));
  const sizes = lying.flatMap((one) => (one ? [upright(sizeOf(one), one.page, surveys)] : []));
  const common = how.alike && sizes.length ? commonOf(sizes) : undefined;
  return pages.map((page, n) => {
    const one = lying[n];
    if (!one) return page;
    if (!how.toPaper) return one.page;
    const own = sizeOf(one);
    const isAlike = common && isNearly(upright(own, page, surveys), common);
    return onPaper(one, isAlike ? upright(common, page, surveys) : own);
  });
}

/** A page turned back about the middle of what was scanned, and where its paper then lies. */
function layOf(page: Page, surveys: Surveys, { by }: Straightening): Lying | undefined {
  const scan = scanOf(page, surveys);
  const [art] = artsOf(page);
  if (!scan || !art) return undefined;
  const { media } = surveys[art.source]!.pages[art.index]!.boxes;
  const back = turnBack(by ?? scan.skew, (media.x0 + media.x1) / 2, (media.y0 + media.y1) / 2);
  const place = compose(back, art.place);
  const { fold } = scan;
  const isHigh = scan.paper.y1 - scan.paper.y0 > scan.paper.x1 - scan.paper.x0;
  const quarter = turnIn(art.place) % 180 !== 0;
  return {
    page: withOwn({ ...page, art: { ...art, place } }, 'trim'),
    paper: applyToBox(art.place, scan.paper),
    upright: isHigh !== quarter,
    ...(fold === undefined ? {} : { fold: along(art.place, fold, isHigh) }),
  };
}

/** A distance from the left, or from the foot, where the matrix puts it. */
function along(place: Matrix, at: number, isHigh: boolean): number {
  const moved = applyToBox(
    place,
    isHigh ? { x0: 0, y0: at, x1: 0, y1: at } : { x0: at, y0: 0, x1: at, y1: 0 },
  );
  return (turnIn(place) % 180 !== 0) === isHigh ? moved.x0 : moved.y0;
}

/** The size of a paper: twice the larger part of one that folds, so that both its pages have one size. */
function sizeOf({ paper, fold, upright: isHigh }: Lying): Size {
  const size = { width: paper.x1 - paper.x0, height: paper.y1 - paper.y0 };
  if (fold === undefined) return size;
  return isHigh
    ? { ...size, height: 2 * Math.max(fold - paper.y0, paper.y1 - fold) }
    : { ...size, width: 2 * Math.max(fold - paper.x0, paper.x1 - fold) };
}

/** The page ends so far about the middle or the fold of its paper. */
function onPaper({ page, paper, fold, upright: isHigh }: Lying, { width, height }: Size): Page {
  const x = fold !== undefined && !isHigh ? fold : (paper.x0 + paper.x1) / 2;
  const y = fold !== undefined && isHigh ? fold : (paper.y0 + paper.y1) / 2;
  const known = { ...page, whole: page.whole ?? sizeBox(page.trim) };
  return movePage(known, [1, 0, 0, 1, width / 2 - x, height / 2 - y], { width, height });
}

/** A size as its reader has the scan, whichever way it lies; the same way back. */
function upright({ width, height }: Size, page: Page, surveys: Surveys): Size {
  const [art] = artsOf(page);
  const leans = (art && surveys[art.source]?.pages[art.index]?.drawn?.leans) ?? 0;
  return (leans + (art ? turnIn(art.place) : 0)) % 180 ? { width: height, height: width } : { width, height };
}

/** Papers are as large as this, to so much: nearer than a tenth of a millimetre nobody scans. Twice that, so that halves are even too. */
const TO = mm(0.2);
const commonOf = (sizes: readonly Size[]): Size => ({
  width: TO * Math.round(median(sizes.map(({ width }) => width)) / TO),
  height: TO * Math.round(median(sizes.map(({ height }) => height)) / TO),
});
