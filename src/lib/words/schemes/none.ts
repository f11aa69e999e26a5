import { spoken } from '../language';
import type { SchemeWords } from './schemeWords';

export const none: SchemeWords = spoken({
  name: 'separate pages',
  said: 'Each page goes out by itself, at its own size: pieces of stationery, or files for a screen.',
});
