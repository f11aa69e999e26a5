import { spoken } from '../language';
import type { MarkWords } from './markWords';

export const centre: MarkWords = spoken({ name: 'centre' });
