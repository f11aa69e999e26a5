import type { FoldWords } from './foldWords';

export const gate: FoldWords = { name: 'gatefold' };
