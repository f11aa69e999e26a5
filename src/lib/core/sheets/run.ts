import { weightOf } from '../paper/stock';
import type { SheetPlan } from './plan';
import type { PressScheme } from './scheme';

/** What a run length takes. */
export interface Run {
  pieces: number;
  /** Finished pieces that one sheet of a kind gives: of several different sheets, each is needed for every piece. */
  perSheet: number;
  /** Sheets of each kind: those that become pieces, those more for setting up and spoilage, and both. */
  net: number;
  overs: number;
  sheets: number;
  /** All sheets of paper. */
  all: number;
  /** Weight of the paper of one finished piece, in grams; undefined where the grammage is not known. */
  pieceGrams?: number;
}

/** Sheets for a run length with overs, and the weight of a piece; undefined where no run length is given. */
export function runOf(plan: SheetPlan, { run, stock }: PressScheme): Run | undefined {
  if (plan.gang) {
    const { sheets } = plan.gang;
    const overs = Math.ceil((sheets * (run?.overs ?? 0)) / 100);
    return { pieces: sheets, perSheet: 1, net: sheets, overs, sheets: sheets + overs, all: sheets + overs };
  }
  if (!run) return undefined;
  // A booklet needs all its sheets; flat pieces that differ are wanted in the same number each.
  const perSheet = plan.copies.across * plan.copies.up;
  const net = Math.ceil(run.pieces / perSheet);
  const overs = Math.ceil((net * run.overs) / 100);
  const pieceGrams = weightOf(plan.pieceArea, stock);
  return {
    pieces: run.pieces,
    perSheet,
    net,
    overs,
    sheets: net + overs,
    all: (net + overs) * plan.sheetCount,
    ...(pieceGrams === undefined ? {} : { pieceGrams }),
  };
}
