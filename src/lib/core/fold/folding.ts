import type { BorderFold } from './fold';

/** How a sheet is divided, and folded from border to border. `columns` and `rows` are the shares that panels have of it. */
export interface Pattern {
  columns: readonly number[];
  rows: readonly number[];
  folds: readonly BorderFold[];
}

export const vertical = (border: number, moves: BorderFold['moves']): BorderFold => ({
  axis: 'vertical',
  border,
  moves,
  goes: 'under',
});
export const horizontal = (border: number, moves: BorderFold['moves']): BorderFold => ({
  ...vertical(border, moves),
  axis: 'horizontal',
});
export const shares = (n: number): number[] => Array<number>(n).fill(1);

/** To and fro: what is left of the sheet goes under the panel before it, once from each side. */
export const zigzag = (panels: number, fold: typeof vertical): BorderFold[] =>
  Array.from({ length: panels - 1 }, (_, n) => fold(panels - 1 - n, n % 2 ? 'after' : 'before'));

/** A pattern on its sheet turned clockwise by a quarter. */
export function turnedPattern({ columns, rows, folds }: Pattern): Pattern {
  return {
    columns: rows,
    rows: [...columns].reverse(),
    folds: folds.map((fold): BorderFold =>
      fold.axis === 'horizontal'
        ? { ...fold, axis: 'vertical' }
        : {
            ...fold,
            axis: 'horizontal',
            border: columns.length - fold.border,
            moves: fold.moves === 'before' ? 'after' : 'before',
          },
    ),
  };
}
