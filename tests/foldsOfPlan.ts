import { alikeKey } from '../src/lib/core/finish/alike';
import { foldOperations } from '../src/lib/core/finish/folds';
import type { FoldOperation } from '../src/lib/core/finish/operations';
import type { Size } from '../src/lib/core/measure/box';
import type { SheetPlan } from '../src/lib/core/sheets/plan';

/** Sheets, or pieces cut out of them, that are folded alike. */
export interface FoldedAlike {
  /** Numbers of the sheets, from 1. */
  sheets: readonly number[];
  /** Which piece of a sheet it is, if there are several. */
  of?: string;
  /** It is cut out of its sheet before it is folded. */
  cutFirst: boolean;
  /** As it lies flat. */
  size: Size;
  folds: readonly FoldOperation[];
}

/** All folds of a plan's sheets; those that are folded alike once, in the order of their first sheet. */
export function foldsOfPlan({ foldings }: Pick<SheetPlan, 'foldings'>): FoldedAlike[] {
  const found = new Map<string, FoldedAlike & { sheets: number[] }>();
  for (const { sheet, of, cutFirst, pattern } of foldings) {
    const key = alikeKey([of, cutFirst, pattern]);
    const known = found.get(key);
    if (known) {
      known.sheets.push(sheet);
      continue;
    }
    const sum = (lengths: readonly number[]) => lengths.reduce((all, each) => all + each, 0);
    found.set(key, {
      sheets: [sheet],
      ...(of ? { of } : {}),
      cutFirst,
      size: { width: sum(pattern.columns), height: sum(pattern.rows) },
      folds: foldOperations({ pattern }),
    });
  }
  return [...found.values()];
}
