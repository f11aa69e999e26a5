import { t } from '../language';
import { saySize } from '../sizes';
import type { CheckWords } from './checkWords';

export const sizes: CheckWords<'sizes'> = {
  found: {
    'mixed-sizes': (finding, { unit, pages }) => ({
      title: t`One size is not like the rest`,
      text: t`${pages} ${finding.pages.length === 1 ? t`is` : t`are`} not ${saySize(finding.commonest, unit)} like the others. Trimmed together, they come out cut off or with white edges.`,
    }),
    'leaf-two-sizes': (finding, { size }) => ({
      title: t`A leaf with two sizes`,
      text: t`Its front is ${size(finding.front)}, its back ${size(finding.back)}. One piece of paper has one size: make both the same.`,
    }),
  },
  mends: {
    'commonest-size': () => t`Size them like the rest`,
    'turn-like-rest': () => t`Turn them like the rest`,
    'same-leaf-size': () => t`Size its back like its front`,
  },
};
