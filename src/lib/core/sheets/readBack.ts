import { rescue, scanOf, type ScanOrder } from '../pages/rescue';
import type { Spine } from '../pages/page';
import type { Cell, SheetPlan } from './plan';

/**
 * The positions met when a plan's sheets, scanned side by side in an order, are put back into reading order; 1, 2, 3 … where
 * the plan is right. Each side is looked at the way up that its pages read. Panels are left out: they hang on their leaves.
 */
export function readBack(plan: SheetPlan, spine: Spine, order: ScanOrder = 'sheets'): number[] {
  const pages = Math.max(...plan.pages.filter(({ page }) => !page?.panel).map(({ position }) => position));
  const scans: number[][] = [];
  plan.sheets.forEach(({ front, back }, sheet) => {
    scans[scanOf(sheet, 'front', plan.sheetCount, order)] = asRead(front.cells, pages);
    scans[scanOf(sheet, 'back', plan.sheetCount, order)] = asRead(back?.cells ?? [], pages);
  });
  return rescue(scans.length, { by: 'stitched', scans: order }, spine).map(
    ({ scan, part }) => scans[scan]![part]!,
  );
}

const asRead = (cells: readonly Cell[], pages: number): number[] => {
  const positions = cells.filter(({ position }) => position <= pages).map(({ position }) => position);
  return cells[0]?.turn === 180 ? positions.reverse() : positions;
};
