import type { Size } from '../measure/box';
import type { PageList } from '../pages/page';
import { fits, STOCKS, type Stock } from '../paper/stock';
import type { NamedSize } from '../paper/sizes';
import { planSheets } from '.';
import type { PressScheme } from './scheme';

/** How a stock would serve. */
export interface Ranked {
  stock: NamedSize;
  /** Finished pieces a sheet gives, or for a book the share of its sheets. */
  pieces: number;
  /** The share of the sheet that is no trimmed piece. */
  waste: number;
}

/** Sheets of these sizes that take the work with its bleed and marks, the least waste first; of like ones the smaller. */
export function rankStocks(
  list: PageList,
  scheme: PressScheme,
  stocks: readonly NamedSize[] = STOCKS,
): Ranked[] {
  // A cover has a sheet of its own.
  const { cover: _, ...book } = list;
  const paper = ({ width, height }: Size): Stock => ({ ...scheme.stock, width, height });
  return stocks
    .flatMap((stock): Ranked[] => {
      const plan = planSheets(book, { ...scheme, copies: 'most', stock: paper(stock) });
      if (!plan || !fits(plan.needed.marks, plan.sheet)) return [];
      const folded = scheme.kind === 'stitched' || scheme.kind === 'signatures';
      const copies = plan.copies.across * plan.copies.up;
      const pieces = folded ? copies / plan.sheetCount : plan.piecesPerSheet;
      const used = pieces * plan.pieceArea;
      return [{ stock, pieces, waste: 1 - used / (stock.width * stock.height) }];
    })
    .sort((a, b) => a.waste - b.waste || a.stock.width * a.stock.height - b.stock.width * b.stock.height);
}
