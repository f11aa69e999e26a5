import * as z from 'zod';
import { defineScheme } from './schemeKind';

/** A job whose pages go on no sheets here: separate pieces, or files for a screen. */
export const none = defineScheme(z.object({ kind: z.literal('none') }))({
  kind: 'none',
  makes: 'nothing',
  plain: { kind: 'none' },
  plan: () => undefined,
});
