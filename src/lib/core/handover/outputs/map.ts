import * as z from 'zod';
import { cut, plannedOf, range } from '../parts';
import { outputBase } from '../split';
import { defineOutput } from './outputKind';

/** Where every page lies on every sheet, as a table. */
export const map = defineOutput(
  z.object({ ...outputBase, kind: z.literal('map'), as: z.enum(['csv', 'json']) }),
)({
  kind: 'map',
  extension: ({ as }) => as,
  possible: ({ plan }) => plan !== undefined,
  fresh: () => ({ kind: 'map', as: 'csv' }),
  parts: (work) => cut(range(plannedOf(work).sheetCount), undefined, (sheet) => sheet + 1),
});
