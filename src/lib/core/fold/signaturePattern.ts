import { shares, type Pattern } from './folding';
import type { Axis, BorderFold } from './fold';

export const SIGNATURE_PAGES = [4, 8, 16, 32] as const;
export type SignaturePages = (typeof SIGNATURE_PAGES)[number];

/**
 * A signature folded at right angles, each fold halving the piece and the last one at the spine: the left half under for a
 * spine at the left, the right half for one at the right; bound at the head, the same turned by a quarter, so that the
 * upper half goes under. Borders are counted on the sheet lying with its page 1 in front, head up.
 */
export function signaturePattern(pages: SignaturePages, spine: 'left' | 'right' | 'head'): Pattern {
  const halvings = Math.log2(pages / 2);
  const along = spine === 'head' ? 'horizontal' : 'vertical';
  const across = along === 'vertical' ? 'horizontal' : 'vertical';
  const towards = spine === 'left' ? 'before' : 'after';
  const counts = { vertical: 1, horizontal: 1 };
  const axes = Array.from({ length: halvings }, (_, n) => ((halvings - n) % 2 ? along : across));
  for (const axis of axes) counts[axis] *= 2;
  // What stays uppermost is the half of the run that page 1 lies in: at the far end from where halves move.
  const left: { [At in Axis]: readonly [number, number] } = {
    vertical: [0, counts.vertical],
    horizontal: [0, counts.horizontal],
  };
  const folds = axes.map((axis): BorderFold => {
    const [from, to] = left[axis];
    const border = (from + to) / 2;
    const moves = axis === along ? towards : spine === 'head' ? 'before' : 'after';
    left[axis] = moves === 'before' ? [border, to] : [from, border];
    return { axis, border, moves, goes: 'under' };
  });
  return { columns: shares(counts.vertical), rows: shares(counts.horizontal), folds };
}
