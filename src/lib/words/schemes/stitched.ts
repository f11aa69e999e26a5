import { spoken } from '../language';
import type { SchemeWords } from './schemeWords';

export const stitched: SchemeWords = spoken({
  name: 'stitched booklet',
  said: 'Sheets folded and nested, wire-stitched through the fold.',
});
