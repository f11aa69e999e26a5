import { spoken, t } from '../language';
import { sayPages } from '../pages';
import { saySize } from '../sizes';
import type { StepWords } from './stepWords';

/** What happened to the content, as a step's detail says it. */
const CONTENT_WORD = spoken({
  hold: 'keeps its size',
  fit: 'fitted',
  fill: 'filling',
  stretch: 'stretched',
} as const);

export const trim: StepWords<'trim'> = spoken({
  name: 'Size',
  group: 'shape',
  title: 'Trim size',
  does: 'trim size',
  say: (step, { unit, before }) => ({
    what: sayPages(step.pages, before),
    detail: t`${saySize(step, unit)} · content ${CONTENT_WORD[step.content]}`,
  }),
});
