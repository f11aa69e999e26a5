import { spoken, t, translated } from '../language';
/** How a file that was written differs from what was asked. */
type Differs =
  | 'pages'
  | 'label'
  | 'ink-lost'
  | 'ink-strange'
  | 'draws'
  | 'texts'
  | 'shows'
  | 'lies'
  | 'lost'
  | 'trim'
  | 'media';
interface Disagreement {
  name: string;
  what: Differs;
  asked: string | number;
  written: string | number;
  page: number;
  /** How many more there are. */
  more: number;
}
const size: (which: string) => (seen: Disagreement) => string =
  (which) =>
  ({ page, asked, written }) =>
    t`page ${page} should have a ${translated(which)} size of ${asked} and has ${written}`;
const SEEN: Record<Differs, (seen: Disagreement) => string> = spoken({
  pages: ({ asked, written }) => t`${asked} pages were asked for and ${written} are there`,
  label: ({ page, asked, written }) =>
    t`page ${page} should be labelled “${asked}” and is labelled “${written}”`,
  'ink-lost': ({ asked }) => t`the ink “${asked}” is missing`,
  'ink-strange': ({ asked }) => t`the ink “${asked}” is there, which no page has`,
  draws: ({ page, asked, written }) =>
    t`page ${page} should show ${asked} pages and things laid on them, and shows ${written}`,
  texts: ({ page, asked, written }) =>
    t`page ${page} should have ${asked} lines of text put on it, and has ${written}`,
  shows: ({ page }) => t`page ${page} shows another page of its sources than it should`,
  lies: ({ page }) => t`what page ${page} shows lies elsewhere than it should, or is cut off elsewhere`,
  lost: ({ page }) => t`some of what page ${page} should show is missing`,
  trim: size('trim'),
  media: size('whole'),
});
/** A file that was written and is not what was asked; it is kept from everybody. */
const sayDisagreement = (seen: Disagreement): string =>
  t`“${seen.name}” was read again after it was written, and is not what was asked: ${SEEN[seen.what](seen)}${seen.more ? t` (and ${seen.more} more)` : ''}. It is not handed over. Try again; where it happens twice, look at the sources of these pages.`;

/** Sentences: what is wrong, why it matters, what to do. */
export const outputs = {
  'no-pages-in-job': () => t`There are no pages to hand over. Take in a file first.`,
  'no-sheets': () =>
    t`These pages go on no sheets. Choose a scheme on Sheets, or hand over the pages in reading order.`,
  'no-template': () =>
    t`Only a leaflet has a blank template. Choose a leaflet on Sheets, or take this output out.`,
  'nothing-to-cut': () =>
    t`This job has no ink and no layer for a cutter to follow. Lay a die line over its pages, or put cut paths on its sheets.`,
  'cut-not-found': (data: { what: string | number; name: string | number; of: string | number }) =>
    t`No path is drawn ${data.what === 'layer' ? t`on the layer` : t`in the ink`} ${data.name}, so the cutter would cut nothing. Choose another one, or cut ${data.of === 'pages' ? t`the sheets` : t`the pages`} instead.`,
  'no-bookmarks': () =>
    t`No page that goes out has a bookmark of this level, so there is nothing to split at. Choose another level, or split by a number of pages.`,
  'no-series': () =>
    t`The pages have no number series, so there is nothing to split at. Number them first, or split in another way.`,
  'no-pieces': () =>
    t`No page belongs to a piece, so there is nothing to split by. Name the pieces first, or split in another way.`,
  'pages-unread': (data: { reason: string | number }) =>
    t`Which pages go out cannot be read: ${data.reason} Say it anew where the output is set up.`,
  'name-unread': (data: { reason: string | number }) =>
    t`The name of the files cannot be read: ${data.reason} Change it where the output is set up.`,
  'proof-fails': ({
    wrong,
    pages,
    first,
  }: {
    wrong: string | number;
    pages: string | number;
    first: string | number;
  }) =>
    t`The sheets were folded before they went out, and ${wrong === 0 ? t`what came out is not what was intended` : t`${wrong} of ${pages} pages came out wrong`}: ${first} So nothing was handed over. Look at it on Dummy and mend it on Sheets; or say on Hand over why the sheets go out all the same.`,
  'stop-findings': (data: { count: string | number }) =>
    t`${data.count === 1 ? t`A finding says` : t`${data.count} findings say`} stop, and nothing was made. Mend what is wrong, or write why it goes out all the same.`,
  disagrees: sayDisagreement,
  'disk-full': () => t`The disk is full, and nothing was written. Make room, then try again.`,
  'no-such-output': () =>
    t`This file is no longer there: it was deleted, or is not made yet. Make it again under Hand over.`,
  'stopped-early': () =>
    t`The work ended without a word, as when a file brings the program that reads it down. Nothing else was harmed. Try again; where it happens twice, save the file anew with the program that made it.`,
  cancelled: () => t`Cancelled. Nothing was written.`,
  'worker-died': (data: { tries: string | number }) =>
    t`The work was begun ${data.tries} times, and each time the program that did it ended before it was through. Try again when the machine is less busy; where it happens again, save the file anew with the program that made it.`,
};
