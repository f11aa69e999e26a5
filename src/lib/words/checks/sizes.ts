import { saySize } from '../sizes';
import type { CheckWords } from './checkWords';

export const sizes: CheckWords<'sizes'> = {
  found: {
    'mixed-sizes': (finding, { unit, pages }) => ({
      title: 'One size is not like the rest',
      text: `${pages} ${finding.pages.length === 1 ? 'is' : 'are'} not ${saySize(finding.commonest, unit)} like the others. Trimmed together, they come out cut off or with white edges.`,
    }),
    'leaf-two-sizes': (finding, { size }) => ({
      title: 'A leaf with two sizes',
      text: `Its front is ${size(finding.front)}, its back ${size(finding.back)}. One piece of paper has one size: make both the same.`,
    }),
  },
  mends: {
    'commonest-size': () => 'Size them like the rest',
    'turn-like-rest': () => 'Turn them like the rest',
    'same-leaf-size': () => 'Size its back like its front',
  },
};
