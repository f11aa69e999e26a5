import { spoken } from '../language';
import { saySheets } from '../sheets';
import type { OutputWords } from './outputWords';

export const map: OutputWords<'map'> = spoken({
  name: 'Sheet map',
  said: 'Where every page lies on every sheet, as a table for other programs.',
  make: 'Make sheet map',
  inName: () => 'sheet map',
  says: ({ as }) => [as.toUpperCase()],
  fields: { as: { label: 'As', options: { csv: 'CSV', json: 'JSON' } } },
  amount: ({ plan }, unit) => (plan ? saySheets(plan, unit) : ''),
});
