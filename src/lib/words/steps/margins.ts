import { spoken, t } from '../language';
import { formatLength } from '../../core/measure/formatLength';
import { sayEdges, sayPages } from '../pages';
import type { StepWords } from './stepWords';

export const margins: StepWords<'margins'> = spoken({
  name: 'Margins',
  group: 'shape',
  title: 'Margins and columns',
  does: 'margins and columns',
  say: (step, { unit, before }) => ({
    what: sayPages(step.pages, before),
    detail: `${sayEdges(step, unit)}${step.columns > 1 ? t` · ${step.columns} columns, ${formatLength(step.gap, unit)} apart` : ''}`,
  }),
});
