import { spoken, t } from '../language';
import { formatLength } from '../../core/measure/formatLength';
import type { OutputWords } from './outputWords';

export const proof: OutputWords<'proof'> = spoken({
  name: 'Proof',
  said: 'A simulated press and finishing line print, fold, bind and trim the sheets; every page that comes out is compared with the page that was intended, and every cut edge is measured.',
  make: 'Prove it',
  inName: () => 'proof',
  says: ({ error }) => [t`edges that stand less than ${formatLength(error, 'mm')} are named`],
  fields: { error: 'Knives err by up to' },
});
