import * as z from 'zod';
import { selectionSchema } from '../../model/selection';
import { defineStep } from '../stepKind';
import { changePages, stepBase } from './base';

/** Which piece of a job pages belong to (a letterhead, a card), and how many of it are wanted. */
export const pieceShape = {
  name: z.string().trim().min(1).max(60),
  quantity: z.number().int().min(1).max(10_000_000),
};

/** A piece before it has a name. */
const PLAIN_PIECE = { name: 'Piece', quantity: 1 };

/** Names the piece that pages belong to. */
export const piece = defineStep(
  z.object({ ...stepBase, kind: z.literal('piece'), pages: selectionSchema, ...pieceShape }),
)({
  kind: 'piece',
  on: 'pages',
  key: 'p',
  button: true,
  fresh: ({ list, chosen = 'all', indexes }) => {
    const { name, quantity } = list.pages[indexes[0] ?? 0]?.piece ?? PLAIN_PIECE;
    return { kind: 'piece', pages: chosen, name, quantity };
  },
  apply: (list, { pages, name, quantity }) =>
    changePages(list, pages, (page) => ({ ...page, piece: { name, quantity } })),
});
