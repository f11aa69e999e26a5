import * as z from 'zod';
import { enlargeToBleed } from '../../pages/enlarge';
import { withOwn } from '../../pages/page';
import type { Edges, Page, Side } from '../../model/page';
import { selectionSchema } from '../../model/selection';
import { defineStep } from '../stepKind';
import { type BleedArt, bleedArtSchema, bleedEdges, PLAIN_BLEED } from '../shapes';
import { changePages, stepBase } from './base';

/** Sets the bleed of pages, edge by edge. */
export const bleed = defineStep(
  z.object({
    ...stepBase,
    kind: z.literal('bleed'),
    pages: selectionSchema,
    ...bleedEdges,
    art: bleedArtSchema.optional(),
  }),
)({
  kind: 'bleed',
  on: 'pages',
  key: 'e',
  button: true,
  fresh: ({ chosen = 'all' }) => ({ kind: 'bleed', pages: chosen, ...PLAIN_BLEED }),
  apply: (list, step) =>
    changePages(list, step.pages, (page, side) => bleedPage(page, step, step.art ?? 'leave', side)),
});

/** The page with bleed at its edges. */
export function bleedPage(
  { mirrored: _, ...page }: Page,
  { head, foot, spine, fore }: Edges,
  art: BleedArt,
  side: Side,
): Page {
  const bled = withOwn({ ...page, bleed: { by: 'edge', head, foot, spine, fore } }, 'bleed');
  if (art === 'mirror') return { ...bled, mirrored: true };
  return art === 'enlarge' ? enlargeToBleed(bled, side) : bled;
}
