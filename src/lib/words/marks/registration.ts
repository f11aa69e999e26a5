import { spoken } from '../language';
import type { MarkWords } from './markWords';

export const registration: MarkWords = spoken({ name: 'registration', dropped: 'registration marks' });
