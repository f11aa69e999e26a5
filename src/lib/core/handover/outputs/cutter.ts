import * as z from 'zod';
import { readingOrder } from '../../pages/panels';
import { sidePlaces } from '../../sheets/plan';
import { cutBySchema } from '../machines';
import { each, plannedOf } from '../parts';
import { outputBase } from '../split';
import { cutsOf } from '../standIns';
import { defineOutput } from './outputKind';

/** The paths that the cutter stand-in follows. */
export const cutter = defineOutput(
  z.object({
    ...outputBase,
    kind: z.literal('cutter'),
    of: z.enum(['pages', 'sheets']),
    /** The likeliest of `cutsOf`, if missing. */
    by: cutBySchema.optional(),
  }),
)({
  kind: 'cutter',
  counts: 'pages',
  single: true,
  sent: true,
  extension: () => 'svg',
  possible: (work) => cutsOf(work, work.plan ? 'sheets' : 'pages').length > 0,
  fresh: (work) => ({ kind: 'cutter', of: cutsOf(work, 'pages').length ? 'pages' : 'sheets' }),
  parts(work, { of }) {
    if (of === 'pages') return each(readingOrder(work.list), (index) => index + 1);
    // Tools follow their paths from the front.
    return sidePlaces(plannedOf(work)).flatMap(({ sheet, side }, n) =>
      side === 'front' ? [{ name: String(sheet), pages: [n], from: sheet, to: sheet }] : [],
    );
  },
  sheetSized: ({ of }) => of === 'sheets',
});
