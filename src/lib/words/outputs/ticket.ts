import { spoken } from '../language';
import type { OutputWords } from './outputWords';

export const ticket: OutputWords<'ticket'> = spoken({
  name: 'Job ticket',
  said: 'A4 pages that go with the work: what it is and what was found; then numbered instructions with drawings for the press, the guillotine, the folder and the bindery.',
  make: 'Make job ticket',
  inName: () => 'ticket',
});
