import type { MarkWords } from './markWords';

export const centre: MarkWords = { name: 'centre' };
