import * as z from 'zod';
import { selectionSchema } from '../../model/selection';
import { turnPage } from '../../pages/turn';
import { defineStep } from '../stepKind';
import { changePages, stepBase } from './base';

/** Turns pages clockwise; with `unless` only those that do not stand (or lie) that way yet. A square does both. */
export const turn = defineStep(
  z.object({
    ...stepBase,
    kind: z.literal('turn'),
    pages: selectionSchema,
    by: z.literal([90, 180, 270]),
    unless: z.enum(['portrait', 'landscape']).optional(),
  }),
)({
  kind: 'turn',
  on: 'pages',
  key: 't',
  button: true,
  fresh: ({ chosen = 'all' }) => ({ kind: 'turn', pages: chosen, by: 90 }),
  apply: (list, step) =>
    changePages(list, step.pages, (page) => {
      const { width, height } = page.trim;
      const already =
        step.unless === 'portrait' ? height >= width : step.unless === 'landscape' && width >= height;
      return already ? page : turnPage(page, step.by);
    }),
});
