import type { FoldName } from '../../core/fold/patterns';
import { WORDS } from './kinds';
import type { FoldWords } from './foldWords';

/** The words of a fold. */
export const foldWords = (fold: FoldName): FoldWords => WORDS[fold];
/** What every fold is called. */
export const FOLD_NAMES = Object.fromEntries(Object.entries(WORDS).map(([fold, { name }]) => [fold, name]));
