import type { FoldWords } from './foldWords';

export const doubleParallel: FoldWords = { name: 'double parallel fold' };
