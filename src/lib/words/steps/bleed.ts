import { spoken } from '../language';
import { sayEdges, sayPages } from '../pages';
import type { StepWords } from './stepWords';

const ART_WORD = spoken({ leave: '', mirror: ' · edge mirrored', enlarge: ' · art enlarged' } as const);

export const bleed: StepWords<'bleed'> = spoken({
  name: 'Bleed',
  group: 'shape',
  does: 'bleed (edges)',
  say: (step, { unit, before }) => ({
    what: sayPages(step.pages, before),
    detail: `${sayEdges(step, unit)}${ART_WORD[step.art ?? 'leave']}`,
  }),
});
