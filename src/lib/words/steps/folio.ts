import { spoken, t } from '../language';
import { sayAt } from '../numbers';
import { sayPages } from '../pages';
import { plural } from '../plural';
import { listed } from './stepWords';
import type { StepWords } from './stepWords';

export const folio: StepWords<'folio'> = spoken({
  name: 'Folios',
  title: 'Folios: page numbers',
  does: 'folios',
  say: ({ pages, text, away, ...at }, { before }) => ({
    what: sayPages(pages, before),
    detail: listed(text, sayAt(at), away?.length && t`not on ${plural(away.length, 'page')}`),
  }),
});
