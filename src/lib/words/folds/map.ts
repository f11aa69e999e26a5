import type { FoldWords } from './foldWords';

export const map: FoldWords = { name: 'map fold', fields: { columns: 'Panels across', rows: 'Panels down' } };
