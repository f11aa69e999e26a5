import { spoken } from '../language';
import type { MarkWords } from './markWords';

export const bar: MarkWords = spoken({ name: 'colour bar', dropped: 'the colour bar' });
