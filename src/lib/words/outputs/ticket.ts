import type { OutputWords } from './outputWords';

export const ticket: OutputWords<'ticket'> = {
  name: 'Job ticket',
  said: 'One A4 page that goes with the work: sizes, paper, sheets, folds, cuts, findings, and both sides of sheet 1.',
  make: 'Make job ticket',
  inName: () => 'ticket',
};
