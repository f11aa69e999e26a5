import * as z from 'zod';
import { pageLength } from '../measure/lengthSchema';
import { mm } from '../measure/unit';
import { edgesOf, type BorderFold } from './fold';
import { entryAt, lastOf } from '../entries';

const count = (min: number, max: number) => z.number().int().min(min).max(max);
const foldSchema = z.object({
  axis: z.enum(['vertical', 'horizontal']),
  border: count(1, 15),
  moves: z.enum(['before', 'after']),
  goes: z.enum(['over', 'under']),
  layers: count(1, 64).optional(),
});

/** Panels of own folds across, and up. */
export const MOST_PANELS = 16;

/** The preparer's own folds: panels by their widths and heights, and the folds one after another. */
export const ownPatternSchema = z.object({
  fold: z.literal('own'),
  name: z.string().trim().min(1).max(60),
  columns: z.array(pageLength).min(1).max(MOST_PANELS),
  rows: z.array(pageLength).min(1).max(MOST_PANELS),
  folds: z.array(foldSchema).max(30),
});
export type OwnPattern = z.infer<typeof ownPatternSchema>;

/** A fold drawn this near to a border, in points, is at the border. */
const AT_BORDER = mm(0.5);

/**
 * Own folds with one more, at a place from the left or from the foot: a border that is there is folded, else the panel is
 * parted and borders behind it count one more. The smaller part goes under.
 */
export function withFoldAt(pattern: OwnPattern, axis: BorderFold['axis'], at: number): OwnPattern {
  const key = axis === 'vertical' ? 'columns' : 'rows';
  const edges = edgesOf(pattern[key]);
  const whole = lastOf(edges);
  const near = edges.findIndex((edge) => Math.abs(edge - at) < AT_BORDER);
  const border = near > 0 ? near : edges.findIndex((edge) => edge > at);
  const fold: BorderFold = { axis, border, moves: at <= whole / 2 ? 'before' : 'after', goes: 'under' };
  if (near === 0 || near === edges.length - 1 || border < 1) return pattern;
  if (near > 0) return { ...pattern, folds: [...pattern.folds, fold] };
  const parted = edges.toSpliced(border, 0, at);
  return {
    ...pattern,
    [key]: parted.slice(1).map((edge, n) => edge - entryAt(parted, n)),
    folds: [
      ...pattern.folds.map((each) =>
        each.axis === axis && each.border >= border ? { ...each, border: each.border + 1 } : each,
      ),
      fold,
    ],
  };
}

/** Own folds with so many columns or rows: new ones are as the last, and folds at borders that are gone are left out. */
export function withPanels(pattern: OwnPattern, key: 'columns' | 'rows', count: number): OwnPattern {
  const axis = key === 'columns' ? 'vertical' : 'horizontal';
  const lengths = pattern[key];
  return {
    ...pattern,
    [key]: Array.from({ length: count }, (_, n) => lengths[n] ?? lastOf(lengths)),
    folds: pattern.folds.filter((fold) => fold.axis !== axis || fold.border < count),
  };
}
