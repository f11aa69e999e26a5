import type { FinishPlan, Operation } from './operations';

/** How machines err, in points; what is told of knives and folds to the right and upwards, or outwards of a trim. */
export interface MachineErrors {
  /** Every knife cuts so far outside its line. */
  knife: number;
  /** Every fold lies so far from its line. */
  fold: number;
  /** Backs are printed so far to the right of the fronts, and above them. */
  register: number;
  /** Backs are printed as if the press turned the sheet about its other axis. */
  turned: boolean;
  /** The first two folded sheets are laid in the wrong order. */
  gathered: boolean;
}
export const PLAIN_ERRORS: MachineErrors = { knife: 0, fold: 0, register: 0, turned: false, gathered: false };

/** Whether machines err at all. */
export const errs = (errors: MachineErrors): boolean => Object.values(errors).some(Boolean);

/** The finishing plan as machines carry it out that err so. */
export function withErrors(plan: FinishPlan, { knife, fold, gathered }: MachineErrors): FinishPlan {
  const lay = <Laid>(sheets: readonly Laid[], change: (laid: Laid) => Laid): Laid[] => {
    const all = sheets.map(change);
    const [first, second, ...rest] = all;
    return gathered && first && second ? [second, first, ...rest] : all;
  };
  const change = (operation: Operation): Operation => {
    switch (operation.kind) {
      case 'cut': {
        // The first cut of a run moves; the others are measured from the edge that it makes.
        let begins = true;
        const cuts = operation.cuts.map((cut) => {
          const moved = begins ? { ...cut, at: cut.at + knife } : cut;
          begins = cut.rest !== undefined;
          return moved;
        });
        return { ...operation, cuts };
      }
      case 'cut-out':
        return {
          ...operation,
          pieces: operation.pieces.map((piece) => ({ ...piece, x: piece.x + knife, y: piece.y + knife })),
        };
      case 'fold':
        return { ...operation, folds: operation.folds.map((each) => ({ ...each, at: each.at + fold })) };
      case 'nest':
      case 'gather':
        return {
          ...operation,
          sheets: lay(operation.sheets, (laid) => ({ ...laid, inside: laid.inside - knife })),
        };
      case 'tip-in':
      case 'cover':
        return { ...operation, inside: operation.inside - knife };
      case 'trim': {
        const { width, height } = operation.size;
        const [along, across] = [knife, 2 * knife];
        const size =
          operation.spine === 'head'
            ? { width: width + across, height: height + along }
            : { width: width + along, height: height + across };
        return { ...operation, size };
      }
      default:
        return operation;
    }
  };
  return { ...plan, operations: plan.operations.map(change) };
}
