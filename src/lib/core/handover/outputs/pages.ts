import * as z from 'zod';
import { selectionSchema } from '../../model/selection';
import { askedOfPages } from '../agree';
import { pageParts } from '../pageParts';
import { outputBase, pageSplitSchema } from '../split';
import { defineOutput } from './outputKind';

/** The pages in reading order, the CropBox at the bleed or at the trim, all or some of them. */
export const pages = defineOutput(
  z.object({
    ...outputBase,
    kind: z.literal('pages'),
    crop: z.enum(['bleed', 'trim']),
    pages: selectionSchema.optional(),
    split: pageSplitSchema.optional(),
  }),
)({
  kind: 'pages',
  counts: 'pages',
  extension: () => 'pdf',
  possible: () => true,
  fresh: () => ({ kind: 'pages', crop: 'trim' }),
  parts: pageParts,
  asked: askedOfPages,
});
