import * as z from 'zod';
import { shares, vertical } from '../folding';
import { defineFold } from './foldKind';

/** A gatefold folded once more in the middle. */
export const closedGate = defineFold(z.object({ fold: z.literal('closed-gate') }))({
  kind: 'closed-gate',
  fresh: () => ({ fold: 'closed-gate' }),
  pattern: () => ({
    columns: shares(4),
    rows: [1],
    folds: [vertical(1, 'before'), vertical(3, 'after'), vertical(2, 'before')],
  }),
});
