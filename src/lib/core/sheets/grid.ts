import { edgesOf } from '../fold/fold';
import type { Sides } from '../measure/box';
import { OPEN, type Face, type FoldLine, type Form, type Slot } from './form';

/** What lies between two columns or rows: its width, half of which belongs to each; whether they are cut there or only folded. */
export interface Between {
  gap: number;
  cut: boolean;
  folded: boolean;
  /** How much of its middle no bleed may reach into. */
  kept?: number;
}

export interface Grid {
  /** From the left, and from the foot. Lengths in points. */
  columns: readonly number[];
  rows: readonly number[];
  betweenColumns: readonly Between[];
  betweenRows: readonly Between[];
  /** What lies in a column and row, counted from 0. */
  at: (column: number, row: number) => { front?: Face; back?: Face; centred?: true } | undefined;
  name?: string;
}

/** A form of slots in columns and rows. Bleed reaches to the middle of what is between two, and is free at the outside. */
export function gridForm({ columns, rows, betweenColumns, betweenRows, at, name }: Grid): Form {
  const [xs, ys] = [placesOf(columns, betweenColumns), placesOf(rows, betweenRows)];
  const size = { width: xs.total, height: ys.total };
  const slots = rows.flatMap((height, row) =>
    columns.flatMap((width, column): Slot[] => {
      const held = at(column, row);
      if (!held) return [];
      const beside = {
        left: betweenColumns[column - 1],
        right: betweenColumns[column],
        foot: betweenRows[row - 1],
        head: betweenRows[row],
      };
      const sides = Object.keys(beside) as (keyof Sides)[];
      const folded = sides.filter((side) => beside[side] && !beside[side].cut);
      const [x, y] = [xs.from[column]!, ys.from[row]!];
      return [
        {
          ...held,
          box: { x0: x, x1: x + width, y0: y, y1: y + height },
          room: Object.fromEntries(
            sides.map((side) => [
              side,
              beside[side] ? (beside[side].gap - (beside[side].kept ?? 0)) / 2 : OPEN,
            ]),
          ) as unknown as Sides,
          ...(folded.length ? { folded } : {}),
        },
      ];
    }),
  );
  const lines = (axis: FoldLine['axis'], between: readonly Between[], from: readonly number[], to: number) =>
    between.flatMap(({ gap, folded }, n): FoldLine[] =>
      folded ? [{ axis, at: from[n + 1]! - gap / 2, from: 0, to }] : [],
    );
  return {
    size,
    slots,
    folds: [
      ...lines('vertical', betweenColumns, xs.from, size.height),
      ...lines('horizontal', betweenRows, ys.from, size.width),
    ],
    ...(name === undefined ? {} : { name }),
  };
}

/** Where lengths begin that are laid one after another with something between them, and how far they reach. */
function placesOf(
  lengths: readonly number[],
  between: readonly Between[],
): { from: number[]; total: number } {
  const edges = edgesOf(lengths.map((length, n) => length + (between[n]?.gap ?? 0)));
  return { from: edges.slice(0, -1), total: edges.at(-1)! - (between[lengths.length - 1]?.gap ?? 0) };
}
