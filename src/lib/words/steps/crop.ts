import { spoken, t } from '../language';
import type { Cut } from '../../core/docket/steps/crop';
import { formatLength } from '../../core/measure/formatLength';
import type { Unit } from '../../core/measure/unit';
import { sayFour, sayPages } from '../pages';
import type { StepWords } from './stepWords';

function sayCut(cut: Cut, unit: Unit): string {
  if (cut.by === 'ink')
    return t`to the ink${cut.padding ? t`, ${formatLength(cut.padding, unit)} round it` : ''}, ${cut.each ? t`each by its own` : t`one for all`}`;
  return cut.by === 'edge'
    ? t`off ${sayFour(unit, { head: cut.head, foot: cut.foot, spine: cut.spine, 'fore edge': cut.fore })}`
    : t`off ${sayFour(unit, { head: cut.head, foot: cut.foot, left: cut.left, right: cut.right })}`;
}

export const crop: StepWords<'crop'> = spoken({
  name: 'Crop',
  group: 'shape',
  does: 'crop',
  say: ({ pages, cut }, { unit, before }) => ({ what: sayPages(pages, before), detail: sayCut(cut, unit) }),
});
