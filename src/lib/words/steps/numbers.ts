import { spoken, t } from '../language';
import type { SeriesFrom } from '../../core/docket/steps/numbers';
import { inStyle } from '../../core/numbers/series';
import type { PageList } from '../../core/model/page';
import { describeIndexes, pickedOf } from '../../core/select/selection';
import { STYLE_WORD } from '../numbers';
import type { StepWords } from './stepWords';

/** A number series in a few words: `1 from page 3`. */
function saySeries({ from, style, start, prefix = '', suffix = '' }: SeriesFrom, list: PageList): string {
  const first = typeof from === 'string' ? from : describeIndexes(pickedOf(from, list).slice(0, 1), list);
  if (style === 'none') return t`none from page ${first}`;
  const number =
    start === undefined ? t`on in ${STYLE_WORD[style]}` : `${prefix}${inStyle(start, style)}${suffix}`;
  return t`${number} from page ${first}`;
}

export const numbers: StepWords<'numbers'> = spoken({
  name: 'Number series',
  does: 'number series',
  say: ({ series: [first, ...others] }, { before }) => ({
    what: first ? saySeries(first, before) : '',
    detail: others.map((each) => t`then ${saySeries(each, before)}`).join(', '),
  }),
});
