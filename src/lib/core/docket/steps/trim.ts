import * as z from 'zod';
import { A4_SHAPE } from './blank';
import { commonestSize } from '../../pages/sizes';
import type { Size } from '../../measure/box';
import type { Page } from '../../model/page';
import { contentSchema, fixedPointSchema, resizePage, CENTRE } from '../../pages/resize';
import { selectionSchema } from '../../model/selection';
import { defineStep } from '../stepKind';
import { changePages, stepBase } from './base';
import { sizeSchema } from '../shapes';

/** Sets the trim size of pages. */
export const trim = defineStep(
  z.object({
    ...stepBase,
    kind: z.literal('trim'),
    pages: selectionSchema,
    ...sizeSchema.shape,
    content: contentSchema,
    fixed: fixedPointSchema,
    scaleMargins: z.boolean().optional(),
    scaleLines: z.boolean().optional(),
  }),
)({
  kind: 'trim',
  on: 'pages',
  key: 's',
  button: true,
  fresh: ({ list, chosen = 'all', indexes }) => {
    const { width, height } = list.pages[indexes[0] ?? 0]?.trim ?? commonestSize(list.pages) ?? A4_SHAPE;
    return { kind: 'trim', pages: chosen, width, height, content: 'hold', fixed: CENTRE };
  },
  apply(list, step) {
    const size = { width: step.width, height: step.height };
    return changePages(list, step.pages, (page, side) => resizePage(page, size, step, side));
  },
});

/** The step, but for its id, that gives pages a size, their content fitted about the centre. */
export const sizeLike = (
  pages: readonly Page[],
  { width, height }: Size,
): Omit<z.infer<typeof trim.schema>, 'id'> => ({
  kind: 'trim',
  pages: { ids: pages.map(({ id }) => id) },
  width,
  height,
  content: 'fit',
  fixed: CENTRE,
});
