import { spoken } from '../language';
import { sayAt } from '../numbers';
import { sayPages } from '../pages';
import type { StepWords } from './stepWords';

export const running: StepWords<'running'> = spoken({
  name: 'Running lines',
  does: 'running lines',
  say: ({ pages, texts }, { before }) => ({
    what: sayPages(pages, before),
    detail: texts.map((each) => `${each.text}, ${sayAt(each)}`).join(' · '),
  }),
});
