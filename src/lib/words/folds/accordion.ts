import type { FoldWords } from './foldWords';

export const accordion: FoldWords = { name: 'accordion fold', fields: { panels: 'Panels' } };
