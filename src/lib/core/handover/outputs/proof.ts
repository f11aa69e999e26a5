import * as z from 'zod';
import { lengthWithin } from '../../measure/lengthSchema';
import { EDGE_REACH, PLAIN_ERROR } from '../../finish/proof';
import { canBeProved } from '../../finish/intended';
import { cut } from '../parts';
import { outputBase } from '../split';
import { defineOutput } from './outputKind';

/** What comes out of the sheets once they are folded, bound and trimmed, page by page, as a report. */
export const proof = defineOutput(
  z.object({
    ...outputBase,
    kind: z.literal('proof'),
    /** What knives are taken to err by: edges that stand less are named. */
    error: lengthWithin([0, EDGE_REACH]),
  }),
)({
  kind: 'proof',
  isForReading: () => true,
  isWorded: true,
  extension: () => 'pdf',
  possible: ({ plan, docket: { scheme } }) => plan !== undefined && canBeProved(scheme),
  fresh: () => ({ kind: 'proof', error: PLAIN_ERROR }),
  parts: () => cut([0], undefined, () => 1),
});
