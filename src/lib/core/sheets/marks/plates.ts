import { mm } from '../../measure/unit';
import type { Colour } from '../../ink/colour';

/** The tint of the nth process ink alone. */
export const plateInk = (n: number, share: number): Colour => ({
  as: 'process',
  c: n === 0 ? share : 0,
  m: n === 1 ? share : 0,
  y: n === 2 ? share : 0,
  k: n === 3 ? share : 0,
});
/** Between one thing in the margin and the next. */
export const APART = mm(1.5);
/** The side of a patch of the colour bar. */
export const PATCH = mm(5);
