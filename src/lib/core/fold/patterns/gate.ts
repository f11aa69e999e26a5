import * as z from 'zod';
import { vertical } from '../folding';
import { defineFold } from './foldKind';

/** Both ends to the middle. */
export const gate = defineFold(z.object({ fold: z.literal('gate') }))({
  kind: 'gate',
  fresh: () => ({ fold: 'gate' }),
  pattern: () => ({ columns: [1, 2, 1], rows: [1], folds: [vertical(1, 'before'), vertical(2, 'after')] }),
});
