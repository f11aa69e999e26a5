import { t } from './language';
import { formatSize } from '../core/measure/formatLength';
import type { Unit } from '../core/measure/unit';
import { allSheets, countSides, type SheetPlan } from '../core/sheets/plan';
import { plural } from './plural';

/** How many sheets, how many of their sides are printed, and how large they are. */
export function saySheets(plan: SheetPlan, unit: Unit): string {
  const size = ({ sheet }: SheetPlan) => formatSize(sheet.width, sheet.height, unit);
  const cover = plan.cover ? t`, the cover ${size(plan.cover.plan)}` : '';
  return `${plural(allSheets(plan), 'sheet')} · ${plural(countSides(plan), 'side')} · ${size(plan)}${cover}`;
}
