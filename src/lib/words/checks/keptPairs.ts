import { t } from '../language';
import type { CheckWords } from './checkWords';

export const keptPairs: CheckWords<'kept-pairs'> = {
  found: {
    'kept-pair-split': (finding) => ({
      title: finding.lost
        ? t`Half of a kept pair is gone`
        : finding.pairs === 1
          ? t`A kept pair has come apart`
          : t`${finding.pairs} kept pairs have come apart`,
      text: finding.lost
        ? t`Pages that were to stay together are no longer both there. What runs across the spread is cut in half.`
        : t`This step puts pages that must face each other back to back${finding.pairs > 1 ? t`, the first at page ${finding.first}` : t`, from page ${finding.first}`}. What runs across the spread comes apart.`,
    }),
  },
  mends: {
    'blank-for-pairs': (data) =>
      data.count === 1 ? t`Put one blank before it` : t`Put a blank before and behind`,
  },
};
