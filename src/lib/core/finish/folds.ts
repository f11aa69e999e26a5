import { mostLayers } from '../fold/creases';
import { FoldError, foldPlaces, foldStates } from '../fold/fold';
import { bounds, heightOf, widthOf, type Size } from '../measure/box';
import { alikeKey } from './alike';
import type { SheetFolding, SheetPlan } from '../sheets/plan';
import type { FoldOperation } from './operations';
import { entryAt } from '../entries';

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

const PART = {
  vertical: { before: 'left', after: 'right' },
  horizontal: { before: 'foot', after: 'head' },
} as const;

/** The folds of a sheet in their order; none if paper cannot make them, which is found elsewhere. */
export function foldOperations({ pattern }: Pick<SheetFolding, 'pattern'>): FoldOperation[] {
  try {
    const states = foldStates(pattern, pattern.folds);
    return foldPlaces(pattern, pattern.folds).map(({ axis, at, moves, goes }, n): FoldOperation => {
      const { stack } = entryAt(states, n);
      const whole = bounds(stack.map(({ outline }) => outline));
      const after = new Map(
        entryAt(states, n + 1).stack.map((facet) => [`${facet.column} ${facet.row}`, facet.up]),
      );
      const [low, high] = axis === 'vertical' ? (['x0', 'x1'] as const) : (['y0', 'y1'] as const);
      const part = stack.filter(
        ({ outline }) => (outline[low] + outline[high]) / 2 < at === (moves === 'before'),
      );
      const moved = stack.filter((facet) => after.get(`${facet.column} ${facet.row}`) !== facet.up);
      return {
        number: n + 1,
        axis,
        at: at - (axis === 'vertical' ? whole.x0 : whole.y0),
        piece: { width: widthOf(whole), height: heightOf(whole) },
        moves: PART[axis][moves],
        goes,
        layers: mostLayers(moved),
        there: mostLayers(part),
      };
    });
  } catch (error) {
    if (error instanceof FoldError) return [];
    throw error;
  }
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
