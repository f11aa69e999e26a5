import * as z from 'zod';
import { offset, pageLength } from '../../measure/lengthSchema';
import { splitPage } from '../../pages/split';
import { resolveSelection } from '../../select/selection';
import { selectionSchema } from '../../model/selection';
import { defineStep, StepProblem } from '../stepKind';
import { pagesOnly, stepBase } from './base';

/** How pages are cut up: into columns and rows of one size, or in two at a place. Lengths in points. */
export const splitShape = {
  columns: z.number().int().min(1).max(12),
  rows: z.number().int().min(1).max(12),
  /** Where the cut lies that makes two: from the left, or from the head. In the middle if missing. */
  at: pageLength.optional(),
  /** What is left out between parts, half on each side of a cut; less than 0 where both parts show it. */
  gutter: offset,
};

/** Cuts pages into parts, in the order they are read: row by row, from the spine's side. */
export const split = defineStep(
  z.object({ ...stepBase, kind: z.literal('split'), pages: selectionSchema, ...splitShape }),
)({
  kind: 'split',
  on: 'pages',
  key: 'x',
  button: true,
  fresh: ({ chosen = 'all' }) => ({ kind: 'split', pages: chosen, columns: 2, rows: 1, gutter: 0 }),
  apply(list, step) {
    const selected = new Set(pagesOnly(resolveSelection(step.pages, list), list));
    const pages = list.pages.flatMap((page, index) => {
      if (!selected.has(index)) return [page];
      const parts = splitPage(page, step, list.book.spine === 'right');
      if (!parts) throw new StepProblem('split-outside', { position: index + 1 });
      return parts;
    });
    return { ...list, pages };
  },
});
