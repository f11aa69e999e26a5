import { spoken, t } from '../language';
import type { Finding, Mend } from '../../core/checks';
import type { Level } from '../../core/checks/finding';
import { formatSize } from '../../core/measure/formatLength';
import type { Unit } from '../../core/measure/unit';
import { COVER_WORD } from '../book';
import { plural } from '../plural';
import { WORDS } from './kinds';
import type { Said, Saying } from './checkWords';

export type { Said } from './checkWords';

const all = Object.values(WORDS) as { found: object; mends: object }[];
const FOUND = Object.assign({}, ...all.map(({ found }) => found)) as Record<
  Finding['code'],
  (finding: Finding, saying: Saying) => Said
>;
const MENDS = Object.assign({}, ...all.map(({ mends }) => mends)) as Record<
  Mend['code'],
  (data: NonNullable<Mend['data']>) => string
>;

/** The words for a finding, lengths in the job's unit. */
export function sayFinding(finding: Finding, unit: Unit): Said {
  const pages = plural(finding.pages.length, 'page');
  return FOUND[finding.code](finding, {
    unit,
    pages,
    size: ({ width, height }) => formatSize(width, height, unit),
    there: (part) =>
      part
        ? t`The cover’s ${COVER_WORD[part]} has`
        : `${pages} ${finding.pages.length === 1 ? t`has` : t`have`}`,
  });
}

/** How grave a finding is, in a word. */
export const LEVEL_WORD: Readonly<Record<Level, string>> = spoken({
  stop: 'Stop',
  look: 'Look',
  note: 'Note',
});

/** What the button of a mend says. */
export const sayMend = ({ code, data = {} }: Mend): string => MENDS[code](data);
