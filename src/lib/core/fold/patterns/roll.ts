import * as z from 'zod';
import { shares, vertical } from '../folding';
import { defineFold } from './foldKind';

/** Rolled in from the left: each panel goes under the next, the last is the cover. */
export const roll = defineFold(z.object({ fold: z.literal('roll'), panels: z.number().int().min(3).max(8) }))(
  {
    kind: 'roll',
    fresh: () => ({ fold: 'roll', panels: 4 }),
    pattern: ({ panels }) => ({
      columns: shares(panels),
      rows: [1],
      folds: Array.from({ length: panels - 1 }, (_, n) => vertical(n + 1, 'before')),
    }),
  },
);
