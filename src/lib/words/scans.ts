import { plural } from './plural';
import { spoken, t } from './language';
import type { Cleaning } from '../core/pages/cleaning';
import { formatLength } from '../core/measure/formatLength';
import type { Unit } from '../core/measure/unit';
import { keysOf } from '../core/entries';
import type { Arrangement, ScanOrder } from '../core/pages/rescue';
import type { Telling } from '../core/pages/workOutOrder';

/** How scans lie one after another. */
export const SCAN_ORDER_WORD: Record<ScanOrder, string> = spoken({
  sheets: 'sheet by sheet',
  'fronts-backs': 'fronts, then backs',
  'fronts-backs-reversed': 'fronts, then backs from the last',
});

/** What scans show, in words. */
export function sayArrangement(arrangement: Arrangement): string {
  switch (arrangement.by) {
    case 'stitched':
      return t`stitched sheets, ${SCAN_ORDER_WORD[arrangement.scans]}`;
    case 'signature':
      return t`signatures of ${arrangement.pages} pages`;
    case 'spreads':
      return t`spreads in order`;
    case 'own':
      return t`by an own list`;
  }
}

const TOLD: Record<Telling, (count: number) => string> = {
  numbers: (count) => t`${count} by ${count === 1 ? t`its` : t`their`} numbers`,
  words: (count) => t`${count} by ${count === 1 ? t`its` : t`their`} words`,
  blank: (count) => t`${count} blank`,
  others: (count) => t`${count} as the others lie`,
  shape: (count) => t`${count} by ${count === 1 ? t`its` : t`their`} shape alone`,
};

/** What told which way up scans lie. */
export const sayTold = (told: readonly Telling[]): string =>
  t`Which way up: ${keysOf(TOLD)
    .flatMap((by) => {
      const count = told.filter((each) => each === by).length;
      return count ? [TOLD[by](count)] : [];
    })
    .join(', ')}.`;

/** Why a set of pictures in a drop folder waits, and what to do. */
export const sayWaiting = ({
  name,
  pictures,
  missing,
}: {
  name: string;
  pictures: number;
  missing: readonly string[];
}): string =>
  t`“${name}” waits: ${plural(pictures, 'picture')} came, and ${missing.slice(0, 4).join(', ')}${missing.length > 4 ? t` and ${missing.length - 4} more` : ''} ${missing.length === 1 ? t`is` : t`are`} missing. Scan what is missing, or put a file named “end” beside them to take the set as it is.`;

/** How pages are cut up or put together: `2 across, 1 down`. */
export const sayGrid = ({ columns, rows }: { columns: number; rows: number }): string =>
  t`${columns} across, ${rows} down`;

/** What lies between the parts of a page that is cut: `, 5 mm left out`. */
export const sayGutter = (gutter: number, unit: Unit): string => {
  if (!gutter) return '';
  return gutter > 0
    ? t`, ${formatLength(gutter, unit)} left out`
    : t`, ${formatLength(-gutter, unit)} shown twice`;
};

/** What cleaning takes off scans. */
export const CLEANING_WORD: Readonly<Record<keyof Cleaning, string>> = spoken({
  paper: 'paper made white',
  through: 'what shows through from the back taken off, pale tints too',
  edges: 'what lies around the paper taken off',
});
