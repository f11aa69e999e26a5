import { spoken } from '../language';
import type { FoldWords } from './foldWords';

export const french: FoldWords = spoken({ name: 'French fold' });
