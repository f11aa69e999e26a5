import * as z from 'zod';
import { resolveSelection, selectionSchema } from '../../pages/selection';
import { defineStep } from '../stepKind';
import { stepBase } from './base';

/** The widest bleed taken, in points: 50 mm, far beyond any use. */
export const MOST_BLEED = (50 * 72) / 25.4;
const edge = z.number().min(0).max(MOST_BLEED);

/** Sets the bleed of pages, edge by edge. */
export const bleed = defineStep({
  kind: 'bleed',
  schema: z.object({
    ...stepBase,
    kind: z.literal('bleed'),
    pages: selectionSchema,
    head: edge,
    foot: edge,
    spine: edge,
    fore: edge,
  }),
  apply(list, step) {
    const picked = new Set(resolveSelection(step.pages, list));
    const { head, foot, spine, fore } = step;
    const pages = list.pages.map((page, index) =>
      picked.has(index) ? { ...page, bleed: { by: 'edge' as const, head, foot, spine, fore } } : page,
    );
    return { ...list, pages };
  },
});
