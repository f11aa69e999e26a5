import type { FoldWords } from './foldWords';

export const roll: FoldWords = { name: 'roll fold', fields: { panels: 'Panels' } };
