import * as z from 'zod';
import { shares, vertical } from '../folding';
import { defineFold } from './foldKind';

/** Once in the middle. */
export const half = defineFold(z.object({ fold: z.literal('half') }))({
  kind: 'half',
  fresh: () => ({ fold: 'half' }),
  pattern: () => ({ columns: shares(2), rows: [1], folds: [vertical(1, 'before')] }),
});
