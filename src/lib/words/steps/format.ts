import { sayPages } from '../pages';
import type { StepWords } from './stepWords';

export const format: StepWords<'format'> = {
  name: 'Format',
  does: 'put a format on',
  say: (step, { before, formats }) => ({
    what: sayPages(step.pages, before),
    detail: `“${formats.find(({ id }) => id === step.format)?.name ?? 'gone'}”${step.only ? ` · gives back its ${step.only.join(', ')}` : ''}`,
  }),
};
