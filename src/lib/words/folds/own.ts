import { spoken } from '../language';
import type { FoldWords } from './foldWords';

export const own: FoldWords = spoken({ name: 'own folds' });
