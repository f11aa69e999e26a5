import { spoken } from '../language';
import type { MarkWords } from './markWords';

export const trim: MarkWords = spoken({ name: 'trim' });
