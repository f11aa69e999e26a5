import * as z from 'zod';
import { shares, vertical } from '../folding';
import { defineFold } from './foldKind';

/** In half twice, the second fold parallel to the first. */
export const doubleParallel = defineFold(z.object({ fold: z.literal('double-parallel') }))({
  kind: 'double-parallel',
  fresh: () => ({ fold: 'double-parallel' }),
  pattern: () => ({ columns: shares(4), rows: [1], folds: [vertical(2, 'before'), vertical(3, 'before')] }),
});
