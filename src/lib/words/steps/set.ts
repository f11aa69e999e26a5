import { spoken, t } from '../language';
import { setNumber } from '../../core/numbers/set';
import { sayAt } from '../numbers';
import { sayPages } from '../pages';
import { plural } from '../plural';
import { listed } from './stepWords';
import type { StepWords } from './stepWords';

export const set: StepWords<'set'> = spoken({
  name: 'Numbered set',
  title: 'Numbered set: tickets, vouchers',
  does: 'numbered set',
  say: ({ pages, away, ...step }, { before }) => ({
    what: sayPages(pages, before),
    detail: listed(
      t`from ${setNumber(0, step)}`,
      sayAt(step),
      away?.length && t`not on ${plural(away.length, 'page')}`,
    ),
  }),
});
