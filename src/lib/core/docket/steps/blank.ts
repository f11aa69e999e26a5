import * as z from 'zod';
import { indexOfPlace, insertPages, placeSchema } from '../../pages/place';
import type { Page } from '../../pages/page';
import { mm } from '../../measure/unit';
import { defineStep } from '../stepKind';
import { stepBase } from './base';

/** Puts blank pages in, of the size and bleed of their neighbour; A4 without bleed where the list is empty. */
export const blank = defineStep({
  kind: 'blank',
  schema: z.object({
    ...stepBase,
    kind: z.literal('blank'),
    count: z.number().int().min(1).max(2000),
    where: placeSchema,
  }),
  apply(list, step) {
    const index = indexOfPlace(step.where, list);
    const beside = step.where.at === 'before' || index === 0 ? list.pages[index] : list.pages[index - 1];
    const shape = beside ?? {
      trim: { width: mm(210), height: mm(297) },
      bleed: { by: 'edge' as const, head: 0, foot: 0, spine: 0, fore: 0 },
    };
    const pages = Array.from({ length: step.count }, (_, n): Page => ({
      id: `${step.id}:${n + 1}`,
      trim: shape.trim,
      bleed: shape.bleed,
    }));
    return insertPages(list, index, pages);
  },
});
