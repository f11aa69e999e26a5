import type { SchemeWords } from './schemeWords';

export const leaflet: SchemeWords = {
  name: 'folded leaflet',
  said: 'One sheet folded in any way. Pages are its two sides, or its panels.',
};
