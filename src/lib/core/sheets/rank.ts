import type { PageList } from '../model/page';
import { fits, STOCKS, type Stock } from '../paper/stock';
import { planSheets } from '.';
import { schemeKind, type PressScheme } from './schemes';

/** How a stock would serve. */
export interface Ranked {
  name: string;
  stock: Stock;
  /** Finished pieces that a sheet gives, or how many copies lie on each sheet of a book. */
  pieces: number;
  /** Between copies, with room for the bleed of both. */
  between: number;
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
      const one = planSheets(book, { ...scheme, copies: { across: 1, up: 1 }, stock });
      if (!one) return [];
      // Room for the bleed of both neighbours, unless there is more already.
      const { bleeds, trims } = one.needed;
      const apart = Math.max(bleeds.width - trims.width, bleeds.height - trims.height);
      const between = Math.max(scheme.between ?? 0, apart);
      const plan = planSheets(book, { ...scheme, copies: 'most', between, stock });
      if (!plan || !fits(plan.needed.marks, plan.sheet)) return [];
      const folded = schemeKind(scheme.kind).makes === 'book';
      const copies = plan.copies.across * plan.copies.up;
      const used = (folded ? copies / plan.sheetCount : plan.piecesPerSheet) * plan.pieceArea;
      return [
        {
          name,
          stock,
          between,
          pieces: folded ? copies : plan.piecesPerSheet,
          waste: 1 - used / (stock.width * stock.height),
        },
      ];
    })
    .sort((a, b) => a.waste - b.waste || a.stock.width * a.stock.height - b.stock.width * b.stock.height);
}
