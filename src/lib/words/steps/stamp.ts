import { spoken, t } from '../language';
import type { StampSize } from '../../core/docket/steps/stamp';
import { formatLength } from '../../core/measure/formatLength';
import type { Unit } from '../../core/measure/unit';
import { sayPercent } from '../lengths';
import { listed, sayLaid } from './stepWords';
import type { StepWords } from './stepWords';

const sayStampSize = (size: StampSize, unit: Unit): string => {
  if (size.by === 'scale') return t`at ${sayPercent(size.scale)}`;
  return size.by === 'width'
    ? t`${formatLength(size.width, unit)} wide`
    : t`${formatLength(size.height, unit)} high`;
};

export const stamp: StepWords<'stamp'> = spoken({
  name: 'Stamp',
  title: 'Stamp a graphic on pages',
  does: 'stamp',
  say: ({ graphic, pages, size, takeOut }, { unit, before }) => ({
    what: sayLaid(graphic, pages, before),
    detail: listed(sayStampSize(size, unit), takeOut && t`taken out of the list`),
  }),
});
