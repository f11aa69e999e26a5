import { weightOf } from '../paper/stock';
import { coverPress } from './coverSheet';
import type { SheetPlan } from './plan';
import { PLAIN_OVERS, type Press } from './scheme';
import type { PressScheme } from './schemes';

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
  /** Weight of the paper of one finished piece, in grams; undefined if the grammage is not known. */
  pieceGrams?: number;
}

const sum = (all: readonly number[]): number => all.reduce((total, each) => total + each, 0);
const withOvers = (net: number, percent: number) => ({ net, overs: Math.ceil((net * percent) / 100) });

/** Sheets of which one kind is printed: those that become pieces, those more for setting up and spoilage, and both. */
export type SheetsOfKind = Pick<Run, 'net' | 'overs' | 'sheets'>;

/** How many of a sheet (from 0) are printed; undefined if no run length is given. */
export function sheetsOfKind(
  plan: SheetPlan,
  index: number,
  scheme: Press | PressScheme,
): SheetsOfKind | undefined {
  const wanted = plan.apart?.[index];
  if (wanted === undefined) return runOf(plan, scheme);
  const each = plan.copies.across * plan.copies.up;
  const { net, overs } = withOvers(Math.ceil(wanted / each), scheme.run?.overs ?? PLAIN_OVERS);
  return { net, overs, sheets: net + overs };
}

/** Sheets for a run length with overs, and the weight of a piece; undefined if no run length is given. Ganged pieces give it themselves. */
export function runOf(plan: SheetPlan, scheme: Press | PressScheme): Run | undefined {
  const { run, stock } = scheme;
  if (plan.gang) {
    const { sheets } = plan.gang;
    const { overs } = withOvers(sheets, run?.overs ?? PLAIN_OVERS);
    return { pieces: sheets, perSheet: 1, net: sheets, overs, sheets: sheets + overs, all: sheets + overs };
  }
  if (plan.apart) {
    const each = plan.copies.across * plan.copies.up;
    const runs = plan.apart.map((pieces) => withOvers(Math.ceil(pieces / each), run?.overs ?? PLAIN_OVERS));
    const [net, overs] = [sum(runs.map((one) => one.net)), sum(runs.map((one) => one.overs))];
    return { pieces: sum(plan.apart), perSheet: each, net, overs, sheets: net + overs, all: net + overs };
  }
  if (!run?.pieces) return undefined;
  // A booklet needs all its sheets; flat pieces that differ are wanted in the same number each.
  const perSheet = plan.copies.across * plan.copies.up;
  const { net, overs } = withOvers(Math.ceil(run.pieces / perSheet), run.overs);
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
