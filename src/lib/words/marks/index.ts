import type { MarkName } from '../../core/sheets/marks';
import { WORDS } from './kinds';
import type { MarkWords } from './markWords';

/** The words of a kind of printer's mark. */
export const markWords = (kind: MarkName): MarkWords => WORDS[kind];
