import type { SchemeWords } from './schemeWords';

export const single: SchemeWords = {
  name: 'single pages with marks',
  said: 'Each page by itself, with its bleed and marks.',
};
