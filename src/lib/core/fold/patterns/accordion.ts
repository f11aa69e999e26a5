import * as z from 'zod';
import { shares, vertical, zigzag } from '../folding';
import { defineFold } from './foldKind';

/** To and fro. */
export const accordion = defineFold(
  z.object({ fold: z.literal('accordion'), panels: z.number().int().min(3).max(16) }),
)({
  kind: 'accordion',
  fresh: () => ({ fold: 'accordion', panels: 4 }),
  pattern: ({ panels }) => ({ columns: shares(panels), rows: [1], folds: zigzag(panels, vertical) }),
});
