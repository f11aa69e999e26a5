import { weightOf } from '../paper/stock';
import { coverPress } from './cover';
import type { SheetPlan } from './plan';
import type { Press, PressScheme } from './scheme';

/** What a run length takes. */
export interface Run {
  pieces: number;
  /** Finished pieces that one sheet of a kind gives: of several different sheets, each is needed for every piece. */
  perSheet: number;
  /** Sheets of each kind: those that become pieces, those more for setting up and spoilage, and both. */
  net: number;
  overs: number;
  sheets: number;
  /** All sheets of paper, a cover's not among them. */
  all: number;
  /** Sheets that a cover takes, which is on other paper. */
  cover?: Run;
  /** Weight of the paper of one finished piece, in grams; undefined where the grammage is not known. */
  pieceGrams?: number;
}

/** Sheets for a run length with overs, and the weight of a piece; undefined where no run length is given. */
export function runOf(plan: SheetPlan, scheme: Press | PressScheme): Run | undefined {
  const { run, stock } = scheme;
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
  const own = weightOf(plan.pieceArea, stock);
  const cover =
    plan.cover && 'kind' in scheme && scheme.kind === 'signatures'
      ? runOf(plan.cover.plan, coverPress(scheme))
      : undefined;
  const pieceGrams = cover ? own && cover.pieceGrams && own + cover.pieceGrams : own;
  return {
    pieces: run.pieces,
    perSheet,
    net,
    overs,
    sheets: net + overs,
    all: (net + overs) * plan.sheetCount,
    ...(pieceGrams === undefined ? {} : { pieceGrams }),
    ...(cover ? { cover } : {}),
  };
}
