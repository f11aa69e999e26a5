import type { CheckWords } from './checkWords';

export const keptPairs: CheckWords<'kept-pairs'> = {
  found: {
    'kept-pair-split': (finding) => ({
      title: finding.lost
        ? 'Half of a kept pair is gone'
        : finding.pairs === 1
          ? 'A kept pair has come apart'
          : `${finding.pairs} kept pairs have come apart`,
      text: finding.lost
        ? 'Pages that were to stay together are no longer both there. What runs across the spread is cut in half.'
        : `This step puts pages that must face each other back to back${finding.pairs > 1 ? `, the first at page ${finding.first}` : `, from page ${finding.first}`}. What runs across the spread comes apart.`,
    }),
  },
  mends: {
    'blank-for-pairs': (data) =>
      data.count === 1 ? 'Put one blank before it' : 'Put a blank before and behind',
  },
};
