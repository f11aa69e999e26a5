import { POINTS_PER, type Unit } from '../../core/measure/unit';
import { entryAt, foundIn, lastOf } from '../../core/entries';

/** Steps of the grid in each unit, small to large: the mat's squares are real lengths of the job's unit. */
const STEPS: Record<Unit, readonly number[]> = {
  mm: [1, 5, 10, 50, 100, 500, 1000],
  cm: [0.1, 0.5, 1, 5, 10, 50, 100],
  in: [1 / 8, 1 / 4, 1, 6, 12, 36],
  'in-decimal': [0.1, 0.5, 1, 6, 12, 36],
  pt: [1, 12, 72, 144, 720, 1440],
  pica: [1, 6, 12, 24, 72, 144],
};
const FINEST_PX = 9;
const LABEL_PX = 46;

export interface Grid {
  /** Points between fine lines, heavy lines, and labelled lines. */
  fine: number;
  heavy: number;
  label: number;
}

/** The grid for `pxPerPt` pixels a point. */
export function gridFor(unit: Unit, pxPerPt: number): Grid {
  const steps = STEPS[unit].map((step) => step * POINTS_PER[unit]);
  // Beyond the largest step, tens of it.
  for (let far = lastOf(steps) * 10; lastOf(steps) * pxPerPt < LABEL_PX; far *= 10) steps.push(far);
  const atLeast = (px: number) => foundIn(steps, (step) => step * pxPerPt >= px);
  const fine = atLeast(FINEST_PX);
  return {
    fine,
    heavy: entryAt(steps, Math.min(steps.indexOf(fine) + 1, steps.length - 1)),
    label: atLeast(LABEL_PX),
  };
}

/** Multiples of `step` from `from` to `to`. */
export const multiples = (step: number, from: number, to: number): number[] => {
  const first = Math.ceil(from / step);
  return Array.from(
    { length: Math.max(0, Math.min(2000, Math.floor(to / step) - first + 1)) },
    (_, i) => (first + i) * step,
  );
};
