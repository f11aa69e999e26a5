import { sameCell } from '../../core/sheets/byHand';
import type { ByHand, CellAt } from '../../core/sheets/pressTerms';
import type { Bench } from '../bench.svelte';

/** Puts changes by hand in place of those of the scheme; each is one step back. */
export function putByHand(bench: Bench, byHand: readonly ByHand[]): void {
  const { scheme } = bench.docket;
  if (!('stock' in scheme)) return;
  const { byHand: _, ...rest } = scheme;
  bench.putBeside({
    ...bench.docket,
    scheme: { ...rest, ...(byHand.length ? { byHand: [...byHand] } : {}) } as typeof scheme,
  });
}

export const handChanges = ({ docket: { scheme } }: Bench): readonly ByHand[] =>
  ('stock' in scheme && scheme.byHand) || [];

/** Turns a cell or leaves it out. */
export const changeCell = (bench: Bench, change: ByHand): void =>
  putByHand(bench, [...handChanges(bench), change]);

/** The next cell that is clicked changes places with this one; asked for again, none does. */
export function swapCell(bench: Bench, at: CellAt): void {
  const view = bench.sheets;
  view.onswap = view.onswap
    ? undefined
    : (other) => {
        view.onswap = undefined;
        if (!sameCell(at, other)) changeCell(bench, { do: 'swap', at, with: other });
      };
}
