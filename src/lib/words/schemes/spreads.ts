import { spoken } from '../language';
import type { SchemeWords } from './schemeWords';

export const spreads: SchemeWords = spoken({
  name: 'reader spreads',
  said: 'Facing pages side by side, as a reader meets them: for a proof or a screen.',
});
