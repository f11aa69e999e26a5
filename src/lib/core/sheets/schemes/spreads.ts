import * as z from 'zod';
import { marksSchema } from '../marks';
import { planSpreads } from '../spreads';
import { defineScheme } from './schemeKind';

/** *Reader spreads*: facing pages side by side, for a screen or a proof. */
export const spreads = defineScheme(z.object({ kind: z.literal('spreads'), marks: marksSchema }))({
  kind: 'spreads',
  makes: 'nothing',
  plain: { kind: 'spreads', marks: { trim: true, fold: false } },
  plan: planSpreads,
});
