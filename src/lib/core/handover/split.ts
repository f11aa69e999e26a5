import * as z from 'zod';
import { selectionSchema } from '../model/selection';

/** Most pages, or sides of sheets, that a part may be asked to have. */
const MOST_PAGES = 100_000;
/** Bounds of a part's size in megabytes (of 1,000,000 bytes, as mail and file systems count them). */
export const PART_MB = { least: 0.05, most: 4096 } as const;

const every = z.object({ by: z.literal('every'), count: z.number().int().min(1).max(MOST_PAGES) });
/** Fronts and backs apart, for a press that is fed by hand; `reverse` where the pile comes to lie upside down. */
const faces = z.object({ by: z.literal('faces'), reverse: z.literal(true).optional() });
/** As many pages as a file of so many megabytes takes. */
const size = z.object({ by: z.literal('size'), mb: z.number().min(PART_MB.least).max(PART_MB.most) });

/** How the pages of a file are shared out to several. */
export const pageSplitSchema = z.discriminatedUnion('by', [
  every,
  /** At every bookmark of a level, counted from 0. */
  z.object({ by: z.literal('bookmarks'), level: z.number().int().min(0).max(20) }),
  z.object({ by: z.literal('series') }),
  z.object({ by: z.literal('pieces') }),
  /** At every page selected. */
  z.object({ by: z.literal('places'), at: selectionSchema }),
  faces,
  size,
]);
export const sideSplitSchema = z.discriminatedUnion('by', [every, faces, size]);
export const spreadSplitSchema = z.discriminatedUnion('by', [every, size]);
export type Split = z.infer<typeof pageSplitSchema>;

/** What every output says. */
export const outputBase = {
  /** Tells one output of a job from another; if missing, there is one of its kind. */
  id: z.string().min(1).max(64).optional(),
  /** Pattern of the names of its files (see `NAME_TOKENS`), where not plain. */
  name: z.string().max(300).optional(),
};
