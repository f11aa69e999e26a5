import { spoken } from '../language';
import type { FoldWords } from './foldWords';

export const letter: FoldWords = spoken({ name: 'letter fold' });
