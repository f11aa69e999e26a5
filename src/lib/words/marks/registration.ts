import type { MarkWords } from './markWords';

export const registration: MarkWords = { name: 'registration', dropped: 'registration marks' };
