import { rescue, scanOf, type ScanOrder } from '../pages/rescue';
import type { Spine } from '../model/page';
import type { Cell, SheetPlan } from './plan';
import { entryAt } from '../entries';

/**
 * The positions met when a plan's sheets, scanned side by side in an order, are put back into reading order; 1, 2, 3 … where
 * the plan is right, 0 where a page is upside down or left out. Each side is looked at the way up that its pages read.
 * Panels are left out: they hang on their leaves.
 */
export function readBack(plan: SheetPlan, spine: Spine, order: ScanOrder = 'sheets'): number[] {
  const pages = Math.max(...plan.pages.filter(({ page }) => !page?.panel).map(({ position }) => position));
  const turned = new Set(
    plan.hand?.changed.flatMap(({ at, turned }) => (turned ? [`${at.sheet} ${at.side} ${at.cell}`] : [])),
  );
  const scans: number[][] = [];
  plan.sheets.forEach((drawn, sheet) => {
    for (const side of ['front', 'back'] as const) {
      const seen = (drawn[side]?.cells ?? []).map((cell, n): Seen => ({
        cell,
        turned: turned.has(`${sheet + 1} ${side} ${n + 1}`),
      }));
      scans[scanOf(sheet, side, plan.sheetCount, order)] = asRead(seen, pages);
    }
  });
  return rescue(scans.length, { by: 'stitched', scans: order }, spine).map(({ scan, part }) =>
    entryAt(entryAt(scans, scan), part),
  );
}

/** A cell, and whether it was turned by hand, against the others of its side. */
interface Seen {
  cell: Cell;
  turned: boolean;
}

function asRead(seen: readonly Seen[], pages: number): number[] {
  const positions = seen
    .filter(({ cell }) => cell.position <= pages)
    .map(({ cell, turned }) => (turned || cell.hand === 'left-out' ? 0 : cell.position));
  const [first] = seen;
  return first && (first.cell.turn === 180) !== first.turned ? positions.reverse() : positions;
}
