import type { FoldWords } from './foldWords';

export const letter: FoldWords = { name: 'letter fold' };
