import { spoken } from '../language';
import type { SchemeWords } from './schemeWords';

export const single: SchemeWords = spoken({
  name: 'single pages with marks',
  said: 'Each page by itself, with its bleed and marks.',
});
