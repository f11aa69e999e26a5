import * as z from 'zod';
import { marksSchema } from '../marks';
import { planSingle } from '../spreads';
import { defineScheme } from './schemeKind';

/** *Single*: each page by itself, with marks. */
export const single = defineScheme(z.object({ kind: z.literal('single'), marks: marksSchema }))({
  kind: 'single',
  makes: 'nothing',
  plain: { kind: 'single', marks: { trim: true, fold: false } },
  plan: planSingle,
});
