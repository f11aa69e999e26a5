import { spoken } from '../language';
import type { OutputWords } from './outputWords';

export const spreads: OutputWords<'spreads'> = spoken({
  name: 'Spreads PDF',
  said: 'For a proof: facing pages side by side, as a reader meets them, at their trim.',
  make: 'Make spreads PDF',
  inName: () => 'spreads',
});
