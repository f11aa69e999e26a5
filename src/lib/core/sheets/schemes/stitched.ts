import { PLAIN_PRESS } from '../scheme';
import { planStitched } from '../stitched';
import { stitchedSchema } from '../settings/stitched';
import { defineScheme } from './schemeKind';

export const stitched = defineScheme(stitchedSchema)({
  kind: 'stitched',
  makes: 'book',
  plain: { ...PLAIN_PRESS, kind: 'stitched', gap: 0, pad: 'before-last' },
  plan: planStitched,
});
