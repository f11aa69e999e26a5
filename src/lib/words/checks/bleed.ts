import { t } from '../language';
import { formatLength } from '../../core/measure/formatLength';
import type { CheckWords } from './checkWords';

export const bleed: CheckWords<'bleed'> = {
  found: {
    'bleed-missing': (finding, { pages }) => ({
      title: t`No bleed supplied`,
      text: t`${pages} ${finding.pages.length === 1 ? t`ends` : t`end`} at the trim. Where colour runs to the edge, a cut 1 mm off leaves a white line: ask for art with 3 mm bleed.`,
    }),
    'bleed-short': (finding, { unit, pages }) => ({
      title: t`The art does not reach the bleed`,
      text: t`${pages}: ${formatLength(finding.wanted, unit)} asked for, ${formatLength(finding.there, unit)} there. The strip between stays white; ask for art with more bleed.`,
    }),
  },
  mends: {
    'mirror-bleed': () => t`Mirror the edge into the bleed`,
    'enlarge-bleed': () => t`Enlarge the art to reach it`,
  },
};
