import { spoken } from '../language';
import type { OutputWords } from './outputWords';

export const dummy: OutputWords<'dummy'> = spoken({
  name: 'Paper dummy',
  said: 'Every sheet small enough for the office printer, both sides, with page numbers and the folds in their order: to be folded by hand. Print it at 100 % on both sides.',
  make: 'Make paper dummy',
  inName: ({ paper }) => `dummy ${paper}`,
  says: ({ paper }) => [paper],
  fields: { paper: { label: 'Paper', options: { A4: 'A4', Letter: 'Letter' } } },
});
