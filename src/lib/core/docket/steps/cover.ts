import * as z from 'zod';
import { COVER_PARTS, type Cover } from '../../model/page';
import { coverPages, doubledPart, sideOfPart, likelyParts } from '../../pages/coverParts';
import { CENTRE, resizePage } from '../../pages/resize';
import { resolveSelection } from '../../select/selection';
import { selectionSchema } from '../../model/selection';
import { defineStep, StepProblem } from '../stepKind';
import { pagesOnly, stepBase } from './base';
import { sizeSchema } from '../shapes';
import { entryAt } from '../../entries';

const HELD = { content: 'hold', fixed: CENTRE } as const;

/**
 * Takes pages out of the list and makes them the book's cover: what each is, in the order of the pages. With `sizes`, parts
 * are made so large about their middle, their content held. Throws StepProblem if parts and pages differ in number, where
 * a part would be there twice, or if nothing is left of the book.
 */
export const cover = defineStep(
  z.object({
    ...stepBase,
    kind: z.literal('cover'),
    pages: selectionSchema,
    parts: z.array(z.enum(COVER_PARTS)).min(1).max(COVER_PARTS.length),
    sizes: z.partialRecord(z.enum(COVER_PARTS), sizeSchema).optional(),
  }),
)({
  kind: 'cover',
  on: 'pages',
  key: 'C',
  button: true,
  fresh: ({ list, chosen = 'last', indexes }) => {
    const pages = indexes.flatMap((index) => list.pages[index] ?? []);
    return {
      kind: 'cover',
      pages: chosen,
      parts: likelyParts(pages.length ? pages : list.pages.slice(-1), list),
    };
  },
  apply(list, { pages, parts, sizes = {} }) {
    const selected = pagesOnly(resolveSelection(pages, list), list);
    if (selected.length !== parts.length)
      throw new StepProblem('cover-count', { pages: selected.length, parts: parts.length });
    const twice = doubledPart([...coverPages(list).map(({ part }) => part), ...parts]);
    if (twice) throw new StepProblem('cover-twice', { part: twice });
    if (selected.length === list.pages.length) throw new StepProblem('cover-of-nothing');
    const made: Cover = Object.fromEntries(
      selected.map((index, n) => {
        const [part, page] = [entryAt(parts, n), entryAt(list.pages, index)];
        const size = sizes[part];
        return [part, size ? resizePage(page, size, HELD, sideOfPart(part, list.book)) : page];
      }),
    );
    const gone = new Set(selected);
    return {
      ...list,
      pages: list.pages.filter((_, index) => !gone.has(index)),
      cover: { ...list.cover, ...made },
    };
  },
});
