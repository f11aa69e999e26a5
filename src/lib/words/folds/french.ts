import type { FoldWords } from './foldWords';

export const french: FoldWords = { name: 'French fold' };
