import * as z from 'zod';
import { countSides } from '../../sheets/plan';
import { planProof } from '../../sheets/spreads';
import { askedOfSides } from '../agree';
import { cut, range } from '../parts';
import { outputBase, spreadSplitSchema } from '../split';
import { defineOutput } from './outputKind';

/** Facing pages side by side at their trim, as a reader meets them. */
export const spreads = defineOutput(
  z.object({ ...outputBase, kind: z.literal('spreads'), split: spreadSplitSchema.optional() }),
)({
  kind: 'spreads',
  counts: 'spreads',
  extension: () => 'pdf',
  possible: ({ list }) => list.book.facing,
  fresh: () => ({ kind: 'spreads' }),
  parts({ list }, output) {
    const proof = planProof(list);
    return cut(range(proof ? countSides(proof) : 0), output.split, (spread) => spread + 1);
  },
  asked(work) {
    const proof = planProof(work.list);
    return proof && askedOfSides(work, proof);
  },
});
