import { spoken } from '../language';
import type { FoldWords } from './foldWords';

export const doubleParallel: FoldWords = spoken({ name: 'double parallel fold' });
