import { spoken } from '../language';
import type { MarkWords } from './markWords';

export const fold: MarkWords = spoken({ name: 'fold' });
