import { t } from './language';
import type { SelectionError, SelectionErrorCode } from '../core/select/selection';

/** What a selection met: the piece of it that is not understood, and which pages the job has. */
interface Met {
  seen: string;
  pages: string;
}
const SENTENCES: Record<SelectionErrorCode, (met: Met) => string> = {
  empty: () => t`Say which pages: 3, 5-9, even, last, or all.`,
  unexpected: ({ seen }) =>
    seen
      ? t`“${seen}” cannot be read here. Pages look like 3, 5-9, even, last.`
      : t`Something is missing at the end. Pages look like 3, 5-9, even, last.`,
  'no-such-page': ({ seen, pages }) => t`There is no page ${seen}: the job has ${pages}.`,
  backwards: () => t`This range runs backwards. Put the smaller position first.`,
  'no-such-label': ({ seen }) => t`No page is labelled ${seen}.`,
  'no-such-size': ({ seen }) => t`“${seen}” is no size known by name.`,
  'no-such-format': ({ seen }) => t`No page has a format named “${seen}”.`,
  'no-such-piece': ({ seen }) => t`No page belongs to a piece named “${seen}”.`,
  'no-such-series': ({ seen }) => t`No number series is named “${seen}”.`,
  'no-such-panel': ({ seen }) =>
    t`No panel hangs at ${seen}. Panels look like 5+1, 5+1 front, or panels for all.`,
  'pages-gone': () => t`The pages selected for this are no longer in the job.`,
  'none-match': ({ pages }) => t`No page answers to this: the job has ${pages}.`,
};

/** The sentence for a selection that does not resolve. */
export function saySelectionError({ code, seen, pageCount }: SelectionError): string {
  const pages = pageCount === 1 ? t`only 1 page` : pageCount ? t`pages 1 to ${pageCount}` : t`no pages yet`;
  return SENTENCES[code]({ seen, pages });
}
