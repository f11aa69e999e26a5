import * as z from 'zod';
import { signaturePattern } from '../signaturePattern';
import { defineFold } from './foldKind';

/** Halved again and again, each fold across the one before, as a signature is. */
export const rightAngle = defineFold(
  z.object({ fold: z.literal('right-angle'), pages: z.literal([8, 16, 32]) }),
)({
  kind: 'right-angle',
  fresh: () => ({ fold: 'right-angle', pages: 8 }),
  pattern: ({ pages }) => signaturePattern(pages, 'left'),
});
