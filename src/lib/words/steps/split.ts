import { spoken, t } from '../language';
import { formatLength } from '../../core/measure/formatLength';
import { sayPages } from '../pages';
import { sayGrid, sayGutter } from '../scans';
import type { StepWords } from './stepWords';

export const split: StepWords<'split'> = spoken({
  name: 'Split',
  group: 'book',
  title: 'Split pages',
  does: 'split pages',
  say: (step, { unit, before }) => ({
    what: sayPages(step.pages, before),
    detail: `${sayGrid(step)}${step.at ? t`, cut at ${formatLength(step.at, unit)}` : ''}${sayGutter(step.gutter, unit)}`,
  }),
});
