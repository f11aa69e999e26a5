import * as z from 'zod';
import { distance } from '../../measure/lengthSchema';
import { joinPages } from '../../pages/join';
import { resolveSelection } from '../../select/selection';
import { selectionSchema } from '../../model/selection';
import type { Page } from '../../model/page';
import { defineStep } from '../stepKind';
import { pagesOnly, stepBase } from './base';
import { entryAt } from '../../entries';

/** Joins pages into larger ones, so many across and so many down, in the order they are read; the last may have places left. */
export const join = defineStep(
  z.object({
    ...stepBase,
    kind: z.literal('join'),
    pages: selectionSchema,
    columns: z.number().int().min(1).max(12),
    rows: z.number().int().min(1).max(12),
    gap: distance,
  }),
)({
  kind: 'join',
  on: 'pages',
  key: 'j',
  button: true,
  fresh: ({ chosen = 'all' }) => ({ kind: 'join', pages: chosen, columns: 2, rows: 1, gap: 0 }),
  apply(list, step) {
    const selected = pagesOnly(resolveSelection(step.pages, list), list);
    const each = step.columns * step.rows;
    const joined = new Map<number, Page>();
    for (let n = 0; n < selected.length; n += each) {
      const group = selected.slice(n, n + each).map((index) => entryAt(list.pages, index));
      joined.set(
        entryAt(selected, n),
        joinPages(group, step, `${step.id}:${n / each + 1}`, list.book.spine === 'right'),
      );
    }
    const gone = new Set(selected);
    const pages = list.pages.flatMap((page, index) => joined.get(index) ?? (gone.has(index) ? [] : [page]));
    return { ...list, pages };
  },
});
