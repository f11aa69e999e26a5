import { spoken } from '../language';
import { saySheets } from '../sheets';
import type { OutputWords } from './outputWords';

export const sheets: OutputWords<'sheets'> = spoken({
  name: 'Sheet PDF',
  said: 'For the press: each page one side of a sheet, front and back in turn, marks on layers of their own.',
  make: 'Make sheet PDF',
  inName: () => 'sheets',
  amount: ({ plan }, unit) => (plan ? saySheets(plan, unit) : ''),
});
