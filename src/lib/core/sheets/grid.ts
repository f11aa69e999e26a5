import { edgesOf } from '../fold/fold';
import { OPEN, type Face, type FoldLine, type Forme, type Slot } from './forme';
import { entryAt, lastOf, keysOf, recordOf } from '../entries';

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

/** A forme of slots in columns and rows. Bleed reaches to the middle of what is between two, and is free at the outside. */
export function gridForme({ columns, rows, betweenColumns, betweenRows, at, name }: Grid): Forme {
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
      const sides = keysOf(beside);
      const folded = sides.filter((side) => beside[side] && !beside[side].cut);
      const [x, y] = [entryAt(xs.from, column), entryAt(ys.from, row)];
      return [
        {
          ...held,
          box: { x0: x, x1: x + width, y0: y, y1: y + height },
          room: recordOf(sides, (side) =>
            beside[side] ? (beside[side].gap - (beside[side].kept ?? 0)) / 2 : OPEN,
          ),
          ...(folded.length ? { folded } : {}),
        },
      ];
    }),
  );
  const lines = (axis: FoldLine['axis'], between: readonly Between[], from: readonly number[], to: number) =>
    between.flatMap(({ gap, folded }, n): FoldLine[] =>
      folded ? [{ axis, at: entryAt(from, n + 1) - gap / 2, from: 0, to }] : [],
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
  return { from: edges.slice(0, -1), total: lastOf(edges) - (between[lengths.length - 1]?.gap ?? 0) };
}
