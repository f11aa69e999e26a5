import type { SchemeWords } from './schemeWords';

export const flat: SchemeWords = {
  name: 'flat work',
  said: 'Pieces side by side on a sheet, cut apart: cards, tickets, slips.',
};
