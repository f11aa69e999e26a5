import * as z from 'zod';
import { onPages } from './putLines';
import { textAtSchema } from '../../model/lines';
import { setNumber, setShape, PLAIN_SET } from '../../numbers/set';
import { defineStep } from '../stepKind';
import { stepBase } from './base';
import { putLines, plainLines } from './putLines';

/** Numbers pages by a counter of their own, as tickets and vouchers are. */
export const set = defineStep(
  z.object({ ...stepBase, kind: z.literal('set'), ...onPages, ...textAtSchema.shape, ...setShape }),
)({
  kind: 'set',
  on: 'numbers',
  key: 'q',
  button: true,
  fresh: (begun) => ({
    ...plainLines(begun),
    ...PLAIN_SET,
    kind: 'set',
    edge: 'foot',
    across: 'right',
    text: '{number}',
  }),
  apply: (list, { edge, across, text, left, first, start, by, digits, prefix, ...step }) =>
    putLines(list, step, [{ edge, across, text, left, first }], (nth) =>
      setNumber(nth, { start, by, digits, prefix }),
    ),
});
