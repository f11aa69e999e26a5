import * as z from 'zod';
import { distance } from '../../measure/lengthSchema';
import { mm } from '../../measure/unit';
import { withCover } from '../cover';
import { PLAIN_PRESS, coverSchema, creepSchema, pressFields } from '../scheme';
import { planSignatures } from '../signatures';
import { defineScheme } from './schemeKind';

/** *Signatures*: folded sheets gathered one after another, glued or sewn. */
const schema = z.object({
  kind: z.literal('signatures'),
  ...pressFields,
  signature: z.literal([4, 8, 16, 32]),
  /** What is left for the last signature makes smaller ones, or is filled up with blanks. */
  last: z.enum(['smaller', 'blanks']),
  pad: z.enum(['before-last', 'end']),
  /** Taken off the spine of a glued book, on each page. */
  roughing: distance,
  cutOff: distance,
  /** Bars that step down the spines, so that a signature out of order shows. */
  collating: z.boolean(),
  creep: creepSchema.optional(),
  /** What the thread of a sewn book adds between one signature and the next. */
  thread: distance.optional(),
  /** How a cover is printed, where the book has one; as PLAIN_COVER where left out. */
  cover: coverSchema.optional(),
});
export type Signatures = z.infer<typeof schema>;

/** 3 mm, by practice: what is cut off at head, foot and fore edge, and taken off the spine of a glued book. */
const CUT_OFF = mm(3);

export const signatures = defineScheme(schema)({
  kind: 'signatures',
  makes: 'book',
  plain: {
    ...PLAIN_PRESS,
    kind: 'signatures',
    stock: { width: mm(640), height: mm(900) },
    signature: 16,
    last: 'smaller',
    pad: 'end',
    roughing: CUT_OFF,
    cutOff: CUT_OFF,
    collating: true,
  },
  plan: (list, scheme, job) => withCover(planSignatures(list, scheme, job), list, scheme, job),
});
