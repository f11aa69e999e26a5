import { spoken } from '../language';
import type { SchemeWords } from './schemeWords';

export const leaflet: SchemeWords = spoken({
  name: 'folded leaflet',
  said: 'One sheet folded in any way. Pages are its two sides, or its panels.',
});
