import type { MarkWords } from './markWords';

export const paths: MarkWords = { name: 'cut and fold paths, unprinted' };
