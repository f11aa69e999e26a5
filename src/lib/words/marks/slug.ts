import { spoken } from '../language';
import type { MarkWords } from './markWords';

export const slug: MarkWords = spoken({ name: 'slug line', dropped: 'the slug line' });
