import { spoken } from '../language';
import type { SchemeWords } from './schemeWords';

export const signatures: SchemeWords = spoken({
  name: 'book in signatures',
  said: 'Folded sheets gathered one after another, glued or sewn at the spine.',
});
