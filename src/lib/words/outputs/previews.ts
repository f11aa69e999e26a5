import type { OutputWords } from './outputWords';

export const previews: OutputWords<'previews'> = {
  name: 'Previews',
  said: 'Small pictures (PNG) to send ahead or to show.',
  make: 'Make previews',
  inName: ({ of }) => (of === 'sheets' ? 'sheet preview' : 'preview'),
  says: ({ of, ppi }) => [`${of}, ${ppi} pixels an inch`],
  fields: { of: { label: 'Of', options: { pages: 'pages', sheets: 'sheet sides' } }, ppi: 'Pixels an inch' },
};
