import { t } from '../language';
import { formatLength } from '../../core/measure/formatLength';
import { plural } from '../plural';
import type { CheckWords } from './checkWords';

export const panels: CheckWords<'panels'> = {
  found: {
    'panel-too-wide': (finding, { unit }) => ({
      title: t`A panel too wide to fold in`,
      text: t`It is ${formatLength(finding.width, unit)} wide and folds over ${formatLength(finding.over, unit)}. ${finding.level === 'stop' ? t`As wide as what it folds into, it buckles` : t`With so little room it may catch`}; by practice it is 1.5 to 3 mm narrower.`,
    }),
    'panel-height': (finding, { unit }) => ({
      title: t`A panel of another height`,
      text: t`It is ${formatLength(finding.height, unit)} high, its leaf ${formatLength(finding.leaf, unit)}. They are one piece of paper: make both the same.`,
    }),
    'fold-at-trim': (finding, { unit }) => ({
      title: t`The knife would open the fold-out`,
      text: t`Its leaf is ${formatLength(finding.width, unit)} wide in a book of ${formatLength(finding.book, unit)}, so the fold lies at the fore-edge trim. By practice it stays 3 to 6 mm inside.`,
    }),
    'panels-meet': (finding, { unit }) => ({
      title: t`Two panels would meet`,
      text: t`Folded in from both ends they take ${formatLength(finding.together, unit)} of the ${formatLength(finding.space, unit)} between. Make them narrower, so that they close without touching.`,
    }),
    'panel-one-face': (finding) => ({
      title: t`A panel wants two pages`,
      text: t`${plural(finding.given, 'page')} were given, and every panel has a front and a back: the last back stays blank.`.replace(
        '1 page were',
        '1 page was',
      ),
    }),
  },
  mends: {
    'narrow-panel': () => t`Make it narrower`,
    'panel-height': () => t`Make it as high as its leaf`,
    'narrow-leaf': () => t`Make its leaf narrower`,
  },
};
