import { spoken, t } from '../language';
import type { OutputWords } from './outputWords';

export const previews: OutputWords<'previews'> = spoken({
  name: 'Previews',
  said: 'Small pictures (PNG) to send ahead or to show.',
  make: 'Make previews',
  inName: ({ of }) => (of === 'sheets' ? 'sheet preview' : 'preview'),
  says: ({ of, ppi }) => [t`${of}, ${ppi} pixels an inch`],
  fields: { of: { label: 'Of', options: { pages: 'pages', sheets: 'sheet sides' } }, ppi: 'Pixels an inch' },
});
