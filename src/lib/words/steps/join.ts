import { formatLength } from '../../core/measure/formatLength';
import { sayPages } from '../pages';
import { sayGrid } from '../scans';
import type { StepWords } from './stepWords';

export const join: StepWords<'join'> = {
  name: 'Join',
  group: 'book',
  title: 'Join pages',
  does: 'join pages',
  say: (step, { unit, before }) => ({
    what: sayPages(step.pages, before),
    detail: `${sayGrid(step)}${step.gap ? `, ${formatLength(step.gap, unit)} apart` : ''}`,
  }),
};
