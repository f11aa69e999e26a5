import { spoken } from '../language';
import type { FoldWords } from './foldWords';

export const closedGate: FoldWords = spoken({ name: 'closed gatefold' });
