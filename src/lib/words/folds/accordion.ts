import { spoken } from '../language';
import type { FoldWords } from './foldWords';

export const accordion: FoldWords = spoken({ name: 'accordion fold', fields: { panels: 'Panels' } });
