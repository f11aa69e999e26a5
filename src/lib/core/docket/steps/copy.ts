import * as z from 'zod';
import { faceAt, sideAt } from '../../pages/page';
import type { Page } from '../../model/page';
import { indexOfPlace, insertPages, placeSchema } from '../../select/place';
import { contentSchema, fixedPointSchema, resizePage } from '../../pages/resize';
import { resolveSelection } from '../../select/selection';
import { selectionSchema } from '../../model/selection';
import { defineStep } from '../stepKind';
import { sizeSchema } from '../shapes';
import { stepBase } from './base';
import { formatted } from './format';
import { pieceShape } from './piece';

/** Puts copies of pages into the list; with a size each copy is another size of its page, as a piece of its own where one is named. */
export const copy = defineStep(
  z.object({
    ...stepBase,
    kind: z.literal('copy'),
    pages: selectionSchema,
    where: placeSchema,
    size: z.object({ ...sizeSchema.shape, content: contentSchema, fixed: fixedPointSchema }).optional(),
    piece: z.object(pieceShape).optional(),
    /** Id of a format of the docket that the new pages get. */
    format: z.string().min(1).max(64).optional(),
  }),
)({
  kind: 'copy',
  on: 'pages',
  key: 'y',
  button: true,
  fresh: ({ chosen = 'last' }) => ({ kind: 'copy', pages: chosen, where: { at: 'after', pages: chosen } }),
  apply(list, step, { formats }) {
    const copies = resolveSelection(step.pages, list).map((index, n): Page => {
      const alike: Page = {
        ...faceAt(list, index)!,
        id: `${step.id}:${n + 1}`,
        ...(step.piece ? { piece: step.piece } : {}),
      };
      // The number that the source printed belongs to the first of them, and so does its place in a pair or on a leaf.
      delete alike.label;
      delete alike.kept;
      delete alike.panel;
      return step.size ? resizePage(alike, step.size, step.size, sideAt(index, list)) : alike;
    });
    return insertPages(
      list,
      indexOfPlace(step.where, list),
      formatted(copies, step.format, formats, list.book),
    );
  },
});
