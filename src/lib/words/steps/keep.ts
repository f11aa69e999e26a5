import { spoken, t } from '../language';
import { sayPages } from '../pages';
import type { StepWords } from './stepWords';

export const keep: StepWords<'keep'> = spoken({
  name: 'Keep together',
  group: 'book',
  title: 'Keep pages together',
  does: 'keep facing pages together',
  hint: 'One page stands for itself and the one that it faces. A step that would part a kept pair says so, and how to mend it.',
  fields: { together: { label: 'These pages', options: { true: 'stay together', false: 'may part' } } },
  say: ({ pages, together }, { before }) => ({
    ...(together ? {} : { act: t`Let go` }),
    what: sayPages(pages, before),
    detail: together ? '' : t`of each other`,
  }),
});
