import { mm } from './unit';

/**
 * How near is near enough: every tolerance on lengths, and why. In points, 1 pt = 0.3528 mm. Lengths are compared with one of
 * these and with nothing else, so that two rules never disagree on whether two edges meet.
 */
export const TOLERANCES = {
  /** Sums of lengths that should be equal: double arithmetic on sheets of a few thousand points errs by less than 1e-9. */
  sum: 1e-6,
  /** One place on paper: 3.5 µm, less than any press, knife or plotter can tell, and more than five decimals of a PDF lose. */
  place: 0.01,
  /** A place that was written and read again, by a PDF or a cutter's file: two roundings more. */
  written: 0.02,
  /** Chords in the place of a curve: 1.8 µm, so that two of them still are within one place. */
  chord: 0.005,
  /** Distances of text to edges: type is set to a tenth of a point at the finest. */
  text: 0.05,
  /** Art that ends this near to the trim or the bleed reaches it: 0.035 mm, half a pixel at 360 ppi. */
  reach: 0.1,
  /** Text that shares this little with something else only touches it: its boxes are higher than its letters. */
  touch: 0.5,
  /** One size: programs round to whole points, so that A5 comes as 420 × 595 instead of 419.53 × 595.28. */
  size: 0.5,
  /** A picture that ends this near to the edges of its page fills it: programs round a picture's size in dots to whole points. */
  fills: 0.5,
  /** Where something is drawn, read off a rendering: a pixel at 96 ppi. */
  measured: 0.75,
  /** Slots of one row, whose feet may differ by what pieces are turned and trimmed. */
  row: 1,
  /** What guillotines and binding machines keep to, by common practice. */
  machine: mm(1),
  /** The least difference in a spine's width that can be seen. */
  seen: mm(0.2),
} as const;
