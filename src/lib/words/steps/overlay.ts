import { sayPercent } from '../lengths';
import { listed, sayLaid } from './stepWords';
import type { StepWords } from './stepWords';

export const overlay: StepWords<'overlay'> = {
  name: 'Overlay',
  title: 'Lay a page over others',
  does: 'overlay',
  say: ({ graphic, pages, purpose, scale, overprint, takeOut }, { before }) => ({
    what: sayLaid(graphic, pages, before),
    detail: listed(
      `${purpose}, at ${sayPercent(scale)}`,
      overprint && 'overprints',
      takeOut && 'taken out of the list',
    ),
  }),
};
