import { contains, grow, heightOf, sizeBox, widthOf, type Box, type Size } from '../measure/box';
import { applyToBox, quarters } from '../measure/matrix';
import { mm } from '../measure/unit';
import { TOLERANCES } from '../measure/tolerances';
import type { FormePiece, LaidForme, SheetPlan } from '../sheets/plan';
import { CutError, cutOperations, cutsOf } from './cuts';
import type { CutPiece, OperationOf } from './operations';
import { followCuts } from './strips';
import { entryAt, foundIn } from '../entries';

/** Paper that stays around a piece that is trimmed once it is folded, at most. 3 mm, by practice. */
const MOST_AROUND = mm(3);

/** A piece to be cut out of a sheet: its box there, and how it lies. */
export interface Placed {
  box: Box;
  laid: LaidForme;
  piece: FormePiece;
}

/** The pieces on a sheet (from 0), from trim to trim. */
export const placedOn = (plan: Pick<SheetPlan, 'laidOn'>, index: number): Placed[] =>
  plan
    .laidOn(index)
    .flatMap((laid) =>
      laid.pieces.map((piece): Placed => ({ laid, piece, box: applyToBox(laid.matrix, piece.box) })),
    );

/** How much paper can stay around each of the pieces on a sheet: to the middle between them, and to the sheet's edges. */
export function roomAround(placed: readonly Placed[], sheet: Size): number {
  const edges = placed.flatMap(({ box }) => [box.x0, box.y0, sheet.width - box.x1, sheet.height - box.y1]);
  const between = placed.flatMap(({ box: a }, n) =>
    placed.slice(n + 1).map(({ box: b }) => Math.max(b.x0 - a.x1, a.x0 - b.x1, b.y0 - a.y1, a.y0 - b.y1) / 2),
  );
  return Math.max(0, Math.min(MOST_AROUND, ...edges, ...between));
}

/** Cuts pieces out of a sheet, with so much paper around each as it lies upright, and lays each on its pile. */
export function cutApart(
  sheet: number,
  size: Size,
  placed: readonly Placed[],
  around: number | { across: number; up: number },
  pileOf: (one: Placed) => number = () => 1,
): (OperationOf<'cut'> | OperationOf<'cut-out'>)[] {
  const { across, up } = typeof around === 'number' ? { across: around, up: around } : around;
  const boxes = placed.map(({ box, laid, piece }) =>
    (laid.turn + piece.turn) % 180
      ? grow(box, { left: up, right: up, head: across, foot: across })
      : grow(box, { left: across, right: across, head: up, foot: up }),
  );
  const pieceOf = (one: Placed, box: Box): Omit<CutPiece, 'strip'> => ({
    size: { width: widthOf(box), height: heightOf(box) },
    pile: pileOf(one),
    turn: quarters(-one.laid.turn - one.piece.turn),
    ...(one.laid.over ? { over: true } : {}),
  });
  try {
    // A piece that reaches over the edge of its sheet cannot be cut free; that is found elsewhere.
    if (boxes.some((box) => !contains(sizeBox(size), box, TOLERANCES.written))) throw new CutError(boxes);
    const cuts = cutOperations(cutsOf(boxes, size));
    const strips = followCuts(size, cuts).papers;
    const pieces = placed.map((one, n): CutPiece => {
      const box = entryAt(boxes, n);
      const [strip] = foundIn(
        [...strips],
        ([, paper]) => contains(paper, box, TOLERANCES.written) && contains(box, paper, TOLERANCES.written),
      );
      return { strip, ...pieceOf(one, box) };
    });
    return [{ kind: 'cut', sheets: [sheet], cuts, pieces }];
  } catch (error) {
    if (!(error instanceof CutError)) throw error;
    const pieces = placed.map((one, n) => {
      const box = entryAt(boxes, n);
      return { strip: `${n + 1}`, x: box.x0, y: box.y0, ...pieceOf(one, box) };
    });
    return [{ kind: 'cut-out', sheets: [sheet], pieces }];
  }
}
