import { spoken } from '../language';
import { formatSize } from '../../core/measure/formatLength';
import { sayPlace } from '../pages';
import { plural } from '../plural';
import { listed } from './stepWords';
import type { StepWords } from './stepWords';

export const blank: StepWords<'blank'> = spoken({
  name: 'Blank',
  group: 'order',
  title: 'Blank pages',
  does: 'new blank pages',
  say: ({ count, shape, words, where }, { unit, before }) => ({
    what: plural(count, 'page'),
    detail: listed(
      shape && formatSize(shape.width, shape.height, unit),
      words && `“${words}”`,
      sayPlace(where, before),
    ),
  }),
});
