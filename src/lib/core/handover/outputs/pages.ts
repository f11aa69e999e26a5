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
    /** The words on scans are read and laid over them, unseen, to be found and copied. */
    searchable: z.literal(true).optional(),
    split: pageSplitSchema.optional(),
  }),
)({
  kind: 'pages',
  // Shown at the trim, it is for screens and proofs.
  isForReading: ({ crop }) => crop === 'trim',
  counts: 'pages',
  extension: () => 'pdf',
  possible: () => true,
  looksAtPages: ({ searchable }) => !!searchable,
  fresh: () => ({ kind: 'pages', crop: 'trim' }),
  parts: pageParts,
  asked: askedOfPages,
});
