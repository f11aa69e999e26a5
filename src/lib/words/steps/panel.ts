import { spoken, t, translated } from '../language';
import { formatLength } from '../../core/measure/formatLength';
import { sayPages } from '../pages';
import { listed } from './stepWords';
import type { StepWords } from './stepWords';

export const panel: StepWords<'panel'> = spoken({
  name: 'Fold-out',
  group: 'book',
  title: 'Fold-out panel',
  does: 'hang a fold-out on a leaf',
  say: ({ pages, count, width, show, folds }, { unit, before }) => ({
    what: t`on ${sayPages(pages, before)}`,
    detail: listed(
      count > 1 && t`${count} panels`,
      width && t`${formatLength(width, unit)} wide`,
      show ? t`shows ${sayPages(show, before)}` : t`blank`,
      t`folds over its ${translated(folds)}`,
    ),
  }),
});
