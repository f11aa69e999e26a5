import { spoken } from '../language';
import type { FoldWords } from './foldWords';

export const roll: FoldWords = spoken({ name: 'roll fold', fields: { panels: 'Panels' } });
