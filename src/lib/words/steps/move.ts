import { spoken } from '../language';
import { sayPages, sayPlace } from '../pages';
import type { StepWords } from './stepWords';

export const move: StepWords<'move'> = spoken({
  name: 'Move',
  group: 'order',
  does: 'move pages elsewhere',
  fields: { where: 'Where' },
  say: ({ pages, where }, { before }) => ({ what: sayPages(pages, before), detail: sayPlace(where, before) }),
});
