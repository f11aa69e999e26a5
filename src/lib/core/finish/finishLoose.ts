import type { Finish } from './toFinish';
import { doneAlike } from './doneAlike';
import { cutApart, placedOn } from './pieces';

/** Pages and spreads for a screen or a proof: cut to their trims, one from each sheet. */
export const finishLoose: Finish = ({ plan }) => {
  const indexes = Array.from({ length: plan.sheetCount }, (_, index) => index);
  const cuts = indexes.flatMap((index) =>
    cutApart(index + 1, plan.sheetSize(index), placedOn(plan, index), 0),
  );
  return {
    reads: 'leaves',
    operations: [
      ...doneAlike(cuts),
      {
        kind: 'count',
        products: cuts.map(({ sheets: [sheet = 1], pieces: [piece] }) => ({
          product: sheet,
          size: piece!.size,
          each: 1,
        })),
      },
    ],
  };
};
