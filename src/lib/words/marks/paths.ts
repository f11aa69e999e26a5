import { spoken } from '../language';
import type { MarkWords } from './markWords';

export const paths: MarkWords = spoken({ name: 'cut and fold paths, unprinted' });
