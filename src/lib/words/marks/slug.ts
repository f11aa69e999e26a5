import type { MarkWords } from './markWords';

export const slug: MarkWords = { name: 'slug line', dropped: 'the slug line' };
