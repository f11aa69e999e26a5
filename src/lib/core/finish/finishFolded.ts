import { edgesOf, FoldError, foldSheet } from '../fold/fold';
import { bounds, heightOf, widthOf, type Size } from '../measure/box';
import type { Pattern } from '../fold/patterns';
import { doneAlike } from './doneAlike';
import type { Finish } from './toFinish';
import { foldOperations } from './folds';
import type { OperationOf } from './operations';
import { cutApart, placedOn } from './pieces';
import { wantedOf } from './wanted';
import { lastOf } from '../entries';

/** Cuts leaflets to their trims and folds them; the work of each sheet is a leaflet of its own. */
export const finishFolded: Finish = (job) => {
  const { plan, scheme } = job;
  const indexes = Array.from({ length: plan.sheetCount }, (_, index) => index);
  const cuts = indexes.flatMap((index) =>
    cutApart(index + 1, plan.sheetSize(index), placedOn(plan, index), 0),
  );
  const folds = indexes.flatMap((index) =>
    plan.foldedFrom(index).map(({ pattern }) => foldOf([index + 1], pattern)),
  );
  const closed = new Map(folds.map(({ sheets, closed }) => [lastOf(sheets), closed]));
  return {
    reads: 'pages' in scheme ? scheme.pages : 'sides',
    operations: [
      ...doneAlike(cuts),
      ...doneAlike(folds),
      {
        kind: 'count',
        products: indexes.map((index) => ({
          product: index + 1,
          size: closed.get(index + 1) ?? plan.cell,
          each: plan.copies.across * plan.copies.up,
          ...wantedOf(job),
        })),
      },
    ],
  };
};

/** The folds of a piece that lies with its head up. */
export function foldOf(sheets: number[], pattern: Pattern, pile?: number): OperationOf<'fold'> {
  const size = { width: lastOf(edgesOf(pattern.columns)), height: lastOf(edgesOf(pattern.rows)) };
  return {
    kind: 'fold',
    sheets,
    ...(pile === undefined ? {} : { pile }),
    size,
    folds: foldOperations({ pattern }),
    turn: 0,
    closed: closedSize(pattern) ?? size,
  };
}

/** How large a piece is once it is folded; undefined if paper cannot fold so. */
function closedSize(pattern: Pattern): Size | undefined {
  try {
    const whole = bounds(foldSheet(pattern, pattern.folds).map(({ outline }) => outline));
    return { width: widthOf(whole), height: heightOf(whole) };
  } catch (error) {
    if (error instanceof FoldError) return undefined;
    throw error;
  }
}
