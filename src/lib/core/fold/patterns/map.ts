import * as z from 'zod';
import { horizontal, shares, vertical, zigzag } from '../folding';
import { defineFold } from './foldKind';

/** To and fro across, then the strip to and fro up. */
export const map = defineFold(
  z.object({
    fold: z.literal('map'),
    columns: z.number().int().min(2).max(16),
    rows: z.number().int().min(2).max(4),
  }),
)({
  kind: 'map',
  fresh: () => ({ fold: 'map', columns: 4, rows: 2 }),
  pattern: ({ columns, rows }) => ({
    columns: shares(columns),
    rows: shares(rows),
    folds: [...zigzag(columns, vertical), ...zigzag(rows, horizontal)],
  }),
});
