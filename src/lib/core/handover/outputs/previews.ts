import * as z from 'zod';
import { readingOrder } from '../../pages/panels';
import { countSides } from '../../sheets/plan';
import { each, plannedOf, range } from '../parts';
import { outputBase } from '../split';
import { defineOutput } from './outputKind';

/** Bounds of the resolution of previews, in pixels an inch. */
const PREVIEW_PPI = { least: 18, plain: 96, most: 600 } as const;

/** Pictures of pages, or of sides of sheets. */
export const previews = defineOutput(
  z.object({
    ...outputBase,
    kind: z.literal('previews'),
    of: z.enum(['pages', 'sheets']),
    ppi: z.number().int().min(PREVIEW_PPI.least).max(PREVIEW_PPI.most),
  }),
)({
  kind: 'previews',
  isForReading: () => true,
  single: true,
  extension: () => 'png',
  possible: () => true,
  fresh: () => ({ kind: 'previews', of: 'pages', ppi: PREVIEW_PPI.plain }),
  parts: (work, { of }) =>
    of === 'pages'
      ? each(readingOrder(work.list), (index) => index + 1)
      : each(range(countSides(plannedOf(work))), (side) => side + 1),
  sheetSized: ({ of }) => of === 'sheets',
});
