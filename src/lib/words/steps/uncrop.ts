import { spoken } from '../language';
import { sayPages } from '../pages';
import type { StepWords } from './stepWords';

export const uncrop: StepWords<'uncrop'> = spoken({
  name: 'Uncrop',
  group: 'shape',
  does: 'uncrop',
  hint: 'Brings back all that was cropped off these pages.',
  say: ({ pages }, { before }) => ({ what: sayPages(pages, before), detail: '' }),
});
