import type { FoldWords } from './foldWords';

export const closedGate: FoldWords = { name: 'closed gatefold' };
