import type { MarkWords } from './markWords';

export const fold: MarkWords = { name: 'fold' };
