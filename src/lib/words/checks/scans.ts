import { describeIndexes } from '../../core/select/selection';
import { listed } from '../listed';
import type { CheckWords } from './checkWords';

/** Page numbers in words: `pages 3, 4 and 13`. */
const sayNumbers = (numbers: readonly number[]): string =>
  `${numbers.length === 1 ? 'page' : 'pages'} ${describeIndexes(numbers.map((number) => number - 1))}`;

export const scans: CheckWords<'scans'> = {
  found: {
    'scan-unsure': (finding) => ({
      title: `Nothing tells which way up ${finding.scans.length === 1 ? 'a scan lies' : 'some scans lie'}`,
      text: `No number and no word was read on scan ${listed(finding.scans.map(String))}, and others of the set are turned. Turned the wrong way, the cover would be upside down and pages in each other’s place: look at ${finding.scans.length === 1 ? 'it' : 'them'}, and answer or set the turns in this step by hand, with “work it out anew” off.`,
    }),
    'sheet-missing': (finding) => ({
      title: 'Scans are missing',
      text: `Going by the numbers on the pages, ${sayNumbers(finding.numbers)} ${finding.numbers.length === 1 ? 'is' : 'are'} not there: a sheet was not scanned. Scan it, or take the gap as it is.`,
    }),
    'sheet-doubled': (finding) => ({
      title: 'Scans are there twice',
      text: `${sayNumbers(finding.numbers)} came more than once: a sheet was scanned twice. Remove the second one.`,
    }),
    'order-differs': (finding) => ({
      title: 'Numbers that do not count up',
      text: `${finding.agree} pages carry the number that their place wants, ${finding.differ} another one. Look at those before you go on.`,
    }),
    'blank-scans': ({ pages }) => ({
      title: 'Scans of blank paper',
      text: `${pages.length} ${pages.length === 1 ? 'page shows' : 'pages show'} nothing but paper. Where they are sides of the booklet they keep its pages in place; where only fronts count, remove them.`,
    }),
  },
  mends: {
    'remove-blank-scans': ({ count }) => `Remove the blank ${count === 1 ? 'page' : 'pages'}`,
  },
};
