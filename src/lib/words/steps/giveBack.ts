import { spoken } from '../language';
import { sayPages, sayPlace } from '../pages';
import type { StepWords } from './stepWords';

export const giveBack: StepWords<'give-back'> = spoken({
  name: 'Give back',
  does: 'give a fold-out back',
  hint: 'The pages that these panels show go back into the list; faces that were made blank go away.',
  fields: { where: 'Where' },
  say: ({ pages, where }, { before }) => ({ what: sayPages(pages, before), detail: sayPlace(where, before) }),
});
