import { spoken } from '../language';
import { sayPages } from '../pages';
import type { StepWords } from './stepWords';

export const remove: StepWords<'remove'> = spoken({
  name: 'Remove',
  group: 'order',
  does: 'remove pages',
  hint: 'The files they come from stay as they are; remove this step and the pages are back.',
  say: ({ pages }, { before }) => ({ what: sayPages(pages, before), detail: '' }),
});
