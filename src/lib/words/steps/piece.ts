import { spoken, t } from '../language';
import { sayPages } from '../pages';
import type { StepWords } from './stepWords';

export const piece: StepWords<'piece'> = spoken({
  name: 'Piece',
  group: 'book',
  does: 'piece',
  say: ({ pages, name, quantity }, { before }) => ({
    what: sayPages(pages, before),
    detail: t`“${name}” · ${quantity} wanted`,
  }),
});
