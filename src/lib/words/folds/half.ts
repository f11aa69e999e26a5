import { spoken } from '../language';
import type { FoldWords } from './foldWords';

export const half: FoldWords = spoken({ name: 'half fold' });
