import * as z from 'zod';
import { horizontal, shares, vertical } from '../folding';
import { defineFold } from './foldKind';

/** In half twice, the second fold across the first. */
export const french = defineFold(z.object({ fold: z.literal('french') }))({
  kind: 'french',
  fresh: () => ({ fold: 'french' }),
  pattern: () => ({
    columns: shares(2),
    rows: shares(2),
    folds: [horizontal(1, 'after'), vertical(1, 'before')],
  }),
});
