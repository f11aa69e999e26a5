import type { CellAt } from '../core/sheets/pressTerms';

export type SheetsLook = 'both' | 'one' | 'light';

/** How the sheets are looked at, and what is being done to them by hand. */
export class SheetsView {
  look = $state<SheetsLook>('both');
  /** The cell worked on. */
  cell = $state.raw<CellAt | undefined>();
  /** The next cell clicked changes places with it. */
  onswap = $state.raw<((other: CellAt) => void) | undefined>();
  /** Folds are being drawn: their axis, and what takes one, by its distance from the left or from the foot of the sheet. */
  drawing = $state.raw<
    | { axis: 'vertical' | 'horizontal'; take: (axis: 'vertical' | 'horizontal', at: number) => void }
    | undefined
  >();
}
