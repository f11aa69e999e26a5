import { spoken, t } from '../language';
import { sayPages } from '../pages';
import { sayArrangement, sayGutter } from '../scans';
import type { StepWords } from './stepWords';

export const readingOrder: StepWords<'reading-order'> = spoken({
  name: 'Reading order',
  group: 'order',
  title: 'Back to reading order',
  button: 'Back to reading order',
  does: 'scans back to reading order',
  say: (step, { unit, before }) => ({
    what: t`of ${sayPages(step.pages, before)}`,
    detail: `${step.byNumbers ? t`worked out from the numbers on them` : sayArrangement(step.arrangement)}${sayGutter(step.gutter, unit)}`,
  }),
});
