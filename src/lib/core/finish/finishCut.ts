import { doneAlike } from './doneAlike';
import type { Finish, ToFinish } from './toFinish';
import { foldOf } from './finishFolded';
import { productOf, type OperationOf } from './operations';
import { cutApart, placedOn, type Placed } from './pieces';
import { wantedOf } from './wanted';
import { flatPieces } from '../sheets/flat';
import { entryAt, firstOf, foundIn } from '../entries';

/** Cuts sheets apart into pieces, and lays them on piles: each kind of piece on its own, or all in their order. */
export const finishCut: Finish = (job) => {
  const { plan, scheme } = job;
  const indexes = Array.from({ length: plan.sheetCount }, (_, index) => index);
  const isRun = 'arrange' in scheme && (scheme.arrange === 'sequence' || scheme.arrange === 'stack');
  // Fold-outs are longer than the cells of a grid and have sheets of their own, behind it.
  const runs = isRun ? indexes.filter((index) => !plan.foldedFrom(index).length) : [];
  const apart = indexes.filter((index) => !runs.includes(index));
  const pileOf = ({ piece }: Placed) => (plan.gang ? piece.of + 1 : 1);
  const cuts = indexes.flatMap((index) =>
    cutApart(index + 1, plan.sheetSize(index), placedOn(plan, index), 0, pileOf),
  );
  const folds = indexes.flatMap((index) =>
    plan
      .foldedFrom(index)
      .map(({ pattern, piece }) => foldOf([index + 1], pattern, plan.gang ? (piece ?? 0) + 1 : undefined)),
  );
  const piles = [...(runs.length ? stacked(job, runs, cuts) : []), ...alike(job, apart, cuts)];
  return {
    reads: 'leaves',
    operations: [...doneAlike(cuts), ...doneAlike(folds), ...piles, counted(job, cuts, piles)],
  };
};

type Cuts = readonly (OperationOf<'cut'> | OperationOf<'cut-out'>)[];
const piecesOf = (cuts: Cuts, sheet: number) =>
  cuts.find(({ sheets }) => sheets.includes(sheet))?.pieces ?? [];

/** Piles of pieces that are all alike: one for each kind of piece on each sheet. */
function alike({ list }: ToFinish, indexes: readonly number[], cuts: Cuts): OperationOf<'stack'>[] {
  const pieces = flatPieces(list);
  const piles = indexes.map((index): OperationOf<'stack'> => {
    const own = piecesOf(cuts, index + 1);
    const there = [...new Set(own.map(({ pile }) => pile))].sort((a, b) => a - b);
    return {
      kind: 'stack',
      sheets: [index + 1],
      by: 'alike',
      piles: there.map((pile) => {
        const many = own.filter((piece) => piece.pile === pile).length;
        const { name } = pieces[productOf(index + 1, pile) - 1]?.front.page?.piece ?? {};
        return { pile, ...(name ? { name } : {}), pieces: many };
      }),
    };
  });
  return doneAlike(piles);
}

/** All pieces of a grid on one pile in their order, once for each time that the grid lies on a sheet. */
function stacked(
  { plan, scheme, list }: ToFinish,
  indexes: readonly number[],
  cuts: Cuts,
): OperationOf<'stack'>[] {
  const index = firstOf(indexes);
  const placed = placedOn(plan, index);
  const own = piecesOf(cuts, index + 1);
  const pieces = flatPieces(list).filter(({ panels }) => !panels.length).length;
  const piles = plan.laidOn(index).map((laid) => {
    const order = placed
      .flatMap((each, n) => (each.laid.box.x0 === laid.box.x0 && each.laid.box.y0 === laid.box.y0 ? [n] : []))
      .sort((a, b) => entryAt(placed, a).piece.of - entryAt(placed, b).piece.of);
    return { pile: 1, strips: order.map((n) => entryAt(own, n).strip), pieces };
  });
  return [
    {
      kind: 'stack',
      sheets: indexes.map((each) => each + 1),
      by: 'arrange' in scheme && scheme.arrange === 'stack' ? 'strips' : 'sheets',
      piles,
    },
  ];
}

/** What comes out, by the piles: how many of each kind one sheet of each gives. */
function counted(
  { plan, list, scheme }: ToFinish,
  cuts: Cuts,
  piles: readonly OperationOf<'stack'>[],
): OperationOf<'count'> {
  const products = new Map<number, OperationOf<'count'>['products'][number]>();
  const pieces = flatPieces(list);
  for (const { sheets, by, piles: those } of piles)
    for (const sheet of by === 'alike' ? sheets : sheets.slice(0, 1))
      for (const { pile, pieces: many } of those) {
        const product = productOf(sheet, pile);
        const { name, quantity } = (by === 'alike' && pieces[product - 1]?.front.page?.piece) || {};
        const { size, turn } = foundIn(piecesOf(cuts, sheet), (piece) => piece.pile === pile);
        const wanted = plan.gang || plan.apart ? (quantity ?? 1) : wantedOf({ scheme }).wanted;
        products.set(product, {
          product,
          ...(name ? { name } : {}),
          size: turn % 180 ? { width: size.height, height: size.width } : size,
          each: (products.get(product)?.each ?? 0) + (by === 'alike' ? many : 1),
          ...(wanted ? { wanted } : {}),
        });
      }
  return { kind: 'count', products: [...products.values()] };
}
