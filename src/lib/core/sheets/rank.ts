import type { PageList } from '../pages/page';
import { fits, STOCKS, type Stock } from '../paper/stock';
import { planSheets } from '.';
import type { PressScheme } from './scheme';

/** How a stock would serve. */
export interface Ranked {
  name: string;
  stock: Stock;
  /** Finished pieces a sheet gives, or for a book the share of its sheets. */
  pieces: number;
  /** The share of the sheet that is no trimmed piece. */
  waste: number;
}

/** Kept papers, and sheets of the usual sizes of the paper in use, that take the work with its bleed and marks, the least waste first; of like ones the smaller. */
export function rankStocks(
  list: PageList,
  scheme: PressScheme,
  kept: readonly { name: string; settings: Stock }[] = [],
): Ranked[] {
  // A cover has a sheet of its own.
  const { cover: _, ...book } = list;
  const stocks = [
    ...kept.map(({ name, settings }) => ({ name, stock: settings })),
    ...STOCKS.map(({ name, width, height }) => ({ name, stock: { ...scheme.stock, width, height } })),
  ];
  return stocks
    .flatMap(({ name, stock }): Ranked[] => {
      const plan = planSheets(book, { ...scheme, copies: 'most', stock });
      if (!plan || !fits(plan.needed.marks, plan.sheet)) return [];
      const folded = scheme.kind === 'stitched' || scheme.kind === 'signatures';
      const copies = plan.copies.across * plan.copies.up;
      const pieces = folded ? copies / plan.sheetCount : plan.piecesPerSheet;
      const used = pieces * plan.pieceArea;
      return [{ name, stock, pieces, waste: 1 - used / (stock.width * stock.height) }];
    })
    .sort((a, b) => a.waste - b.waste || a.stock.width * a.stock.height - b.stock.width * b.stock.height);
}
