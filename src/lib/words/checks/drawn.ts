import { t } from '../language';
import { formatLength } from '../../core/measure/formatLength';
import { COVER_WORD } from '../book';
import type { CheckWords } from './checkWords';

export const drawn: CheckWords<'drawn'> = {
  found: {
    'over-safe-area': (finding, { unit, there }) => ({
      title: t`Too near to the trim`,
      text: t`${there(finding.part)} text or art ${finding.nearest < 0 ? t`over the trim` : t`${formatLength(finding.nearest, unit)} from the trim`}; ${formatLength(finding.safe, unit)} are safe. A cut 1 mm off takes some of it away or leaves it looking crooked.`,
    }),
    'low-resolution': (finding, { pages }) => ({
      title: t`An image too coarse for its size`,
      text: t`${finding.part ? t`The cover’s ${COVER_WORD[finding.part]}` : pages}: ${Math.round(finding.ppi)} pixels an inch at the size it is printed. Under 200 it looks soft; make it smaller or ask for a better one.`,
    }),
  },
  mends: {},
};
