import type { FoldWords } from './foldWords';

export const own: FoldWords = { name: 'own folds' };
