import type { Scheme } from '../../core/sheets/schemes';
import { WORDS } from './kinds';
import type { SchemeWords } from './schemeWords';

/** The words of a kind of scheme. */
export const schemeWords = (kind: Scheme['kind']): SchemeWords => WORDS[kind];
