import { spoken, t } from '../language';
import { sayPages } from '../pages';
import type { StepWords } from './stepWords';

export const format: StepWords<'format'> = spoken({
  name: 'Format',
  does: 'put a format on',
  say: (step, { before, formats }) => ({
    what: sayPages(step.pages, before),
    detail: `“${formats.find(({ id }) => id === step.format)?.name ?? t`gone`}”${step.only ? t` · gives back its ${step.only.join(', ')}` : ''}`,
  }),
});
