import type { FoldWords } from './foldWords';

export const half: FoldWords = { name: 'half fold' };
