import { t } from '../language';
import { describeIndexes } from '../../core/select/selection';
import { listed } from '../listed';
import type { CheckWords } from './checkWords';

/** Page numbers in words: `pages 3, 4 and 13`. */
const sayNumbers = (numbers: readonly number[]): string =>
  `${numbers.length === 1 ? t`page` : t`pages`} ${describeIndexes(numbers.map((number) => number - 1))}`;

export const scans: CheckWords<'scans'> = {
  found: {
    'scan-unsure': (finding) => ({
      title: t`Nothing tells which way up ${finding.scans.length === 1 ? t`a scan lies` : t`some scans lie`}`,
      text: t`No number and no word was read on scan ${listed(finding.scans.map(String))}, and others of the set are turned. Turned the wrong way, the cover would be upside down and pages in each other’s place: look at ${finding.scans.length === 1 ? t`it` : t`them`}, and answer or set the turns in this step by hand, with “work it out anew” off.`,
    }),
    'sheet-missing': (finding) => ({
      title: t`Scans are missing`,
      text: t`Going by the numbers on the pages, ${sayNumbers(finding.numbers)} ${finding.numbers.length === 1 ? t`is` : t`are`} not there: a sheet was not scanned. Scan it, or take the gap as it is.`,
    }),
    'sheet-doubled': (finding) => ({
      title: t`Scans are there twice`,
      text: t`${sayNumbers(finding.numbers)} came more than once: a sheet was scanned twice. Remove the second one.`,
    }),
    'order-differs': (finding) => ({
      title: t`Numbers that do not count up`,
      text: t`${finding.agree} pages carry the number that their place wants, ${finding.differ} another one. Look at those before you go on.`,
    }),
    'blank-scans': ({ pages }) => ({
      title: t`Scans of blank paper`,
      text: t`${pages.length} ${pages.length === 1 ? t`page shows` : t`pages show`} nothing but paper. Where they are sides of the booklet they keep its pages in place; where only fronts count, remove them.`,
    }),
  },
  mends: {
    'remove-blank-scans': ({ count }) => t`Remove the blank ${count === 1 ? t`page` : t`pages`}`,
  },
};
