import * as z from 'zod';
import { defineFold } from './foldKind';
import { roll } from './roll';

/** Three panels rolled in. */
export const letter = defineFold(z.object({ fold: z.literal('letter') }))({
  kind: 'letter',
  fresh: () => ({ fold: 'letter' }),
  pattern: () => roll.pattern({ fold: 'roll', panels: 3 }),
});
