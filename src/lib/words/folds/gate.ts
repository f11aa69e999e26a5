import { spoken } from '../language';
import type { FoldWords } from './foldWords';

export const gate: FoldWords = spoken({ name: 'gatefold' });
