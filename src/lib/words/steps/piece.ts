import { sayPages } from '../pages';
import type { StepWords } from './stepWords';

export const piece: StepWords<'piece'> = {
  name: 'Piece',
  group: 'book',
  does: 'piece',
  say: ({ pages, name, quantity }, { before }) => ({
    what: sayPages(pages, before),
    detail: `“${name}” · ${quantity} wanted`,
  }),
};
