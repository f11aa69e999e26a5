import { formatLength } from '../../core/measure/formatLength';
import { sayPages } from '../pages';
import { listed } from './stepWords';
import type { StepWords } from './stepWords';

export const panel: StepWords<'panel'> = {
  name: 'Fold-out',
  group: 'book',
  title: 'Fold-out panel',
  does: 'hang a fold-out on a leaf',
  say: ({ pages, count, width, show, folds }, { unit, before }) => ({
    what: `on ${sayPages(pages, before)}`,
    detail: listed(
      count > 1 && `${count} panels`,
      width && `${formatLength(width, unit)} wide`,
      show ? `shows ${sayPages(show, before)}` : 'blank',
      `folds over its ${folds}`,
    ),
  }),
};
