import { spoken, t, translated } from '../language';
import { sayPercent } from '../lengths';
import { listed, sayLaid } from './stepWords';
import type { StepWords } from './stepWords';

export const overlay: StepWords<'overlay'> = spoken({
  name: 'Overlay',
  title: 'Lay a page over others',
  does: 'overlay',
  say: ({ graphic, pages, purpose, scale, overprint, takeOut }, { before }) => ({
    what: sayLaid(graphic, pages, before),
    detail: listed(
      t`${translated(purpose)}, at ${sayPercent(scale)}`,
      overprint && t`overprints`,
      takeOut && t`taken out of the list`,
    ),
  }),
});
