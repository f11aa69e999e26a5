import { spreadsOf } from '../pages/leaves';
import type { PageList } from '../pages/page';
import { commonestSize } from '../pages/sizes';
import { pieceForm, plannedPages } from './flat';
import type { Form } from './form';
import { gridForm } from './grid';
import { planToSize } from './press';
import { NO_JOB, type PlannedPage, type SheetPlan } from './plan';
import type { Scheme } from './scheme';

type MarksOf = Pick<Extract<Scheme, { kind: 'spreads' | 'single' }>, 'marks'>;

/** Each page by itself, with its marks, on a sheet as large as that takes. Undefined for an empty list. */
export function planSingle(list: PageList, { marks }: MarksOf, job = NO_JOB): SheetPlan | undefined {
  const cell = commonestSize(list.pages);
  if (!cell) return undefined;
  const pages = plannedPages(list);
  const forms = pages.map((front) => pieceForm({ front, size: front.page!.trim }));
  return planToSize({ forms, pages, cell, blanksAdded: 0, job }, marks);
}

/** Facing pages side by side as a reader meets them, bleed between them left out. Undefined for an empty list. */
export function planSpreads(list: PageList, { marks }: MarksOf, job = NO_JOB): SheetPlan | undefined {
  const cell = commonestSize(list.pages);
  if (!cell) return undefined;
  const pages = plannedPages(list);
  const forms = spreadsOf(list.pages.length, list.book).map(({ left, right, upper, lower }): Form => {
    const [across, up] = [
      [left, right].filter((index) => index !== undefined),
      [lower, upper].filter((index) => index !== undefined),
    ];
    const shown = (across.length ? across : up).map((index) => pages[index]!);
    return across.length ? sideBySide(shown, true) : sideBySide(shown, false);
  });
  return planToSize({ forms, pages, cell, blanksAdded: 0, job }, marks);
}

/** The spreads as they are handed over: at their trim, without marks. */
export const planProof = (list: PageList): SheetPlan | undefined =>
  planSpreads(list, { marks: { trim: false, fold: false } });

/** Pages joined at the spine, from the left or from the foot. */
function sideBySide(shown: readonly PlannedPage[], across: boolean): Form {
  const joined = shown.length > 1 ? [{ gap: 0, cut: false, folded: true }] : [];
  const widths = shown.map(({ page }) => page!.trim.width);
  const heights = shown.map(({ page }) => page!.trim.height);
  return gridForm({
    columns: across ? widths : [Math.max(...widths)],
    rows: across ? [Math.max(...heights)] : heights,
    betweenColumns: across ? joined : [],
    betweenRows: across ? [] : joined,
    at: (column, row) => ({ front: { planned: shown[across ? column : row]!, turn: 0 } }),
  });
}
