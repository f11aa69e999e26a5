import type { MarkWords } from './markWords';

export const trim: MarkWords = { name: 'trim' };
