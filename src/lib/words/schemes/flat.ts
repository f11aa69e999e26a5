import { spoken } from '../language';
import type { SchemeWords } from './schemeWords';

export const flat: SchemeWords = spoken({
  name: 'flat work',
  said: 'Pieces side by side on a sheet, cut apart: cards, tickets, slips.',
});
