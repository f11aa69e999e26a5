import type { WorkedOut } from '../src/lib/core/checks';
import { entryAt } from '../src/lib/core/entries';
import { finishPlanOf } from '../src/lib/core/finish/finishPlan';
import { intendedOf } from '../src/lib/core/finish/intended';
import type { Finished, FinishedPage } from '../src/lib/core/finish/line/finished';
import type { FinishPlan } from '../src/lib/core/finish/operations';
import { heightOf, intersect, sizeBox, widthOf, type Box } from '../src/lib/core/measure/box';
import { applyToBox, compose, invert, type Matrix } from '../src/lib/core/measure/matrix';
import type { Cell, SheetPlan } from '../src/lib/core/sheets/plan';

/*
 * What somebody sees who pages through what a finishing line gave: by the cells that a press printed, marker by marker.
 */

/** A page printed on a side of a sheet, as the front is seen, with the way to it from the page. */
interface Printed {
  cell: Cell;
  box: Box;
  matrix: Matrix;
}

/** What a press prints from a plan, each face once worked out; `change` may spoil it. */
export function pressOf(plan: SheetPlan, change: (cell: Cell, sheet: number) => Cell = (cell) => cell) {
  const known = new Map<string, Printed[]>();
  return (sheet: number, face: 'front' | 'back'): Printed[] => {
    const key = `${sheet} ${face}`;
    const { size, [face]: side } = entryAt(plan.sheets, sheet - 1);
    const axis = sheet > plan.sheetCount ? plan.cover!.plan.turnAxis : plan.turnAxis;
    const through: Matrix =
      face === 'front'
        ? [1, 0, 0, 1, 0, 0]
        : axis === 'vertical'
          ? [-1, 0, 0, 1, size.width, 0]
          : [1, 0, 0, -1, 0, size.height];
    const printed =
      known.get(key) ??
      (side?.cells ?? []).map((each) => {
        const cell = change(each, sheet);
        const back = compose(invert(each.matrix), cell.matrix);
        return {
          cell,
          box: applyToBox(through, applyToBox(back, each.trim)),
          matrix: compose(cell.matrix, through),
        };
      });
    known.set(key, printed);
    return printed;
  };
}

const sharedArea = (a: Box, b: Box): number => {
  const met = intersect(a, b);
  return widthOf(met) * heightOf(met);
};

/** What a finished page shows, and the way from that page to the finished one. */
export function shownOn(press: ReturnType<typeof pressOf>, { sheet, face, flat, matrix }: FinishedPage) {
  let best: Printed | undefined;
  // A neighbour that reaches in by what lengths are rounded to is not what the page shows.
  let most = Math.max(1, (widthOf(flat) * heightOf(flat)) / 100);
  for (const printed of press(sheet, face)) {
    const shared = sharedArea(printed.box, flat);
    if (shared > most) [best, most] = [printed, shared];
  }
  return best && { cell: best.cell, way: compose(best.matrix, matrix) };
}

/** What is wrong with a finished piece: other pages than intended, and those that are turned, mirrored, or moved beyond an edge by more than what inner leaves are pushed out. */
export function wrongWith(
  job: WorkedOut,
  finished: Finished,
  press = pressOf(job.plan!),
  pushed = 4,
): string[] {
  const { list, plan, docket } = job;
  const intended = intendedOf({ list, plan: plan!, scheme: docket.scheme }, finished.product);
  if (!intended.length) return [];
  if (intended.length !== finished.pages.length)
    return [`${finished.pages.length} pages, not ${intended.length}`];
  return finished.pages.flatMap((page, n): string[] => {
    const { page: wanted, part } = intended[n]!;
    const shown = shownOn(press, page);
    const at = JSON.stringify(page.at);
    const id = shown?.cell.page?.id;
    if (id !== wanted?.id) return [`${at}: ${id} in place of ${wanted?.id}`];
    if (!shown || !wanted) return [];
    const [a, b, c, d] = shown.way;
    if (Math.abs(b) > 0.01 || Math.abs(c) > 0.01 || a < 0.9 || d < 0.9) return [`${at}: turned`];
    const { x0, x1, y0, y1 } = applyToBox(shown.way, part ?? sizeBox(wanted.trim));
    const [px, py] = list.book.spine === 'head' ? [0, pushed] : [pushed, 0];
    const off = Math.max(-x0 - px, x1 - page.size.width - px, -y0 - py, y1 - page.size.height - py);
    return off > 0.1 ? [`${at}: moved by ${off.toFixed(2)}`] : [];
  });
}

/** The finishing plan of a job. */
export const planOf = ({ list, plan, docket }: WorkedOut): FinishPlan =>
  finishPlanOf({ list, plan: plan!, scheme: docket.scheme }, docket.title);
