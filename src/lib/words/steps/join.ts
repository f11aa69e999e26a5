import { spoken, t } from '../language';
import { formatLength } from '../../core/measure/formatLength';
import { sayPages } from '../pages';
import { sayGrid } from '../scans';
import type { StepWords } from './stepWords';

export const join: StepWords<'join'> = spoken({
  name: 'Join',
  group: 'book',
  title: 'Join pages',
  does: 'join pages',
  say: (step, { unit, before }) => ({
    what: sayPages(step.pages, before),
    detail: `${sayGrid(step)}${step.gap ? t`, ${formatLength(step.gap, unit)} apart` : ''}`,
  }),
});
