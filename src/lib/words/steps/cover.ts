import { spoken, t } from '../language';
import { COVER_WORD } from '../book';
import { sayPages } from '../pages';
import type { StepWords } from './stepWords';

export const cover: StepWords<'cover'> = spoken({
  name: 'Cover',
  group: 'book',
  title: 'The cover of a bound book',
  does: 'make pages the cover of a bound book',
  say: ({ pages, parts }, { before }) => ({
    what: t`made of ${sayPages(pages, before)}`,
    detail: parts.map((part) => COVER_WORD[part]).join(', '),
  }),
});
