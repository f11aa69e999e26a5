import { spoken, t, translated } from '../language';
import { sayPages } from '../pages';
import type { StepWords } from './stepWords';

const TURN_WORD = spoken({ 90: '90° to the right', 180: '180°', 270: '90° to the left' } as const);

export const turn: StepWords<'turn'> = spoken({
  name: 'Turn',
  group: 'shape',
  does: 'turn',
  hint: '“Not portrait” turns only those that do not stand yet. Bleed set by edge stays with the book’s edges.',
  fields: {
    by: { label: 'Turn', options: { 90: 'right 90°', 180: '180°', 270: 'left 90°' } },
    unless: {
      label: 'Which of them',
      options: { '': 'all', portrait: 'not portrait', landscape: 'not landscape' },
    },
  },
  say: ({ pages, by, unless }, { before }) => ({
    what: sayPages(pages, before),
    detail: `${TURN_WORD[by]}${unless ? t`, where not ${translated(unless)}` : ''}`,
  }),
});
