import type { MarkWords } from './markWords';

export const bar: MarkWords = { name: 'colour bar', dropped: 'the colour bar' };
