import type { StepProblem } from '../core/docket/stepKind';
import { TOKENS } from '../core/numbers/pattern';
import { SelectionError } from '../core/pages/selection';
import { sayPatternError } from './patterns';

/** The sentence for a selection that does not resolve. */
export function saySelectionError({ code, seen, pageCount }: SelectionError): string {
  const pages = pageCount === 1 ? 'only 1 page' : pageCount ? `pages 1 to ${pageCount}` : 'no pages yet';
  switch (code) {
    case 'empty':
      return 'Say which pages: 3, 5-9, even, last, or all.';
    case 'unexpected':
      return seen
        ? `“${seen}” cannot be read here. Pages look like 3, 5-9, even, last.`
        : 'Something is missing at the end. Pages look like 3, 5-9, even, last.';
    case 'no-such-page':
      return `There is no page ${seen}: the job has ${pages}.`;
    case 'backwards':
      return 'This range runs backwards. Put the smaller position first.';
    case 'no-such-label':
      return `No page is labelled ${seen}.`;
    case 'no-such-size':
      return `“${seen}” is no size known by name.`;
    case 'no-such-format':
      return `No page has a format named “${seen}”.`;
    case 'no-such-piece':
      return `No page belongs to a piece named “${seen}”.`;
    case 'no-such-series':
      return `No number series is named “${seen}”.`;
    case 'no-such-panel':
      return `No panel hangs at ${seen}. Panels look like 5+1, 5+1 front, or panels for all.`;
    case 'pages-gone':
      return 'The pages selected for this are no longer in the job.';
    case 'none-match':
      return `No page answers to this: the job has ${pages}.`;
  }
}

/** Why a step does not apply, and what to do. */
export function sayStepProblem(problem: StepProblem | SelectionError): string {
  if (problem instanceof SelectionError) return saySelectionError(problem);
  switch (problem.code) {
    case 'source-missing':
      return `The file “${problem.data.name}” is not here. Take it in again.`;
    case 'source-page-missing':
      return `${problem.data.name ? `“${problem.data.name}”` : 'The file'} has no page ${problem.data.page}.`;
    case 'into-itself':
      return `Page ${problem.data.position} is one of the pages to be moved. Choose a place beside another page.`;
    case 'empty-list':
      return 'There are no pages yet.';
    case 'nothing-left':
      return `Nothing of page ${problem.data.position} would be left: the crop takes off as much as the page has. Cut off less.`;
    case 'not-measured':
      return `Page ${problem.data.position} is still being measured, so what is on it is not known yet. Try again in a moment.`;
    case 'no-ink':
      return 'Nothing is drawn on these pages, so there is no ink to crop to.';
    case 'no-such-format':
      return 'The format that this step puts on pages is no longer there. Choose another one.';
    case 'panel-stays':
      return `${problem.data.panel} is a panel and stays on its leaf. Give it back to the list first.`;
    case 'panel-at-head':
      return 'A fold-out hangs on a fore edge at the side; this book is bound at the head. Bind it at the left or right.';
    case 'panel-on-loose':
      return 'A fold-out hangs on a leaf with two faces; these are loose pages. Choose facing pages for the book first.';
    case 'too-many-faces':
      return `${problem.data.given} pages do not go on these panels, which have ${problem.data.room} faces. Add panels, or choose fewer pages.`;
    case 'shows-itself':
      return `Page ${problem.data.position} belongs to the leaf itself. Choose other pages for its panel.`;
    case 'no-panels':
      return 'There is no panel among these pages. Panels look like 5+1, or panels for all.';
    case 'not-facing':
      return `Page ${problem.data.position} does not face another one of these pages. Choose both pages of a spread.`;
    case 'cover-count':
      return `${problem.data.pages} pages were chosen and ${problem.data.parts} parts of a cover named. Say of each page what it is.`;
    case 'cover-twice':
      return `The cover would have its ${String(problem.data.part).replace('-', ' ')} twice. Say of one of these pages that it is something else.`;
    case 'cover-of-nothing':
      return 'All pages would become the cover, and nothing would be left of the book. Choose fewer.';
    case 'split-outside':
      return `The cut falls outside page ${problem.data.position}, or leaves nothing of it. Cut nearer to its middle, or leave out less.`;
    case 'scans-odd':
      return `${problem.data.scans} scans cannot be whole sheets: each has a front and a back. One is missing, or one is there too many.`;
    case 'signature-count':
      return `${problem.data.scans} scans cannot be whole signatures: each is scanned front and back. One is missing, or one is there too many.`;
    case 'order-repeats':
      return `Part ${problem.data.part} is in the list twice. Each part of the scans has one place.`;
    case 'order-gaps':
      return `Part ${problem.data.part} is not in the list. All ${problem.data.parts} parts of the scans need a place.`;
    case 'order-outside':
      return `There is no part ${problem.data.part}: these scans have ${problem.data.parts}.`;
    case 'series-overlap':
      return `Two series begin at page ${problem.data.position}, and a page has one number. Let one of them begin elsewhere, or take it out.`;
    case 'series-at-panel':
      return 'A series begins at a page of the list; panels follow the leaf that they hang on. Choose the page.';
    case 'empty-pattern':
    case 'unknown-token':
    case 'open-brace':
      return sayPatternError({ code: problem.code, seen: String(problem.data.seen) }, TOKENS);
    case 'no-margins':
      return `Page ${problem.data.position} has no margins to measure from. Measure from the trim, or give it margins first.`;
    case 'place-taken':
      return `Two lines stand at ${problem.data.place}, one on the other. Give one of them another place.`;
    case 'one-graphic':
      return `${problem.data.count} pages were chosen; one page at a time is laid on others.`;
    case 'nothing-on-page':
      return `Page ${problem.data.position} is blank, so nothing would be laid on the others. Choose another page.`;
    case 'nothing-under':
      return 'There is no page to lay it on besides itself. Choose other pages.';
    case 'area-empty':
      return 'The area chosen has nothing of the page in it. Choose it again.';
    case 'same-ink':
      return `“${problem.data.name}” has this name already. Give it another one.`;
    case 'no-such-ink':
      return `No page has a spot ink named “${problem.data.name}”. Choose one of those that are there.`;
    case 'no-column':
      return 'Nothing is left between these margins. Make them or the gaps smaller.';
  }
}

/** What went wrong with a file or an output, as a code that crosses the wire. */
export interface Trouble {
  code: string;
  data?: Record<string, string | number>;
}

/** A file that was written and is not what was asked; it is kept from everybody. */
function sayDisagreement({
  name,
  what,
  asked,
  written,
  page,
  more,
}: Record<string, string | number>): string {
  const seen =
    what === 'pages'
      ? `${asked} pages were asked for and ${written} are there`
      : what === 'label'
        ? `page ${page} should be labelled “${asked}” and is labelled “${written}”`
        : what === 'ink-lost'
          ? `the ink “${asked}” is missing`
          : what === 'draws'
            ? `page ${page} should show ${asked} pages and things laid on them, and shows ${written}`
            : what === 'ink-strange'
              ? `the ink “${asked}” is there, which no page has`
              : `page ${page} should have a ${what === 'trim' ? 'trim' : 'whole'} size of ${asked} and has ${written}`;
  return `“${name}” was read again after it was written, and is not what was asked: ${seen}${more ? ` (and ${more} more)` : ''}. It is not handed over. Try again; where it happens twice, look at the sources of these pages.`;
}

/** The sentence for a file that could not be taken in, or work that failed: what, why, what to do. */
export function sayTrouble({ code, data = {} }: Trouble): string {
  switch (code) {
    case 'empty-file':
      return 'This file is empty: it has no bytes. Ask for it again; it was probably cut off on the way.';
    case 'not-a-pdf':
      return 'This is neither a PDF, a drawing in SVG, nor a JPEG, PNG or TIFF picture: it does not begin as one. Ask for one of these, or check that the right file was chosen.';
    case 'picture-damaged':
      return 'This picture is damaged: it cannot be read to its end. Ask for it again, or scan the page anew.';
    case 'picture-too-large':
      return `This picture has more than ${data.most} million dots, more than print needs. Have it made smaller, and take that in.`;
    case 'svg-damaged':
      return 'This drawing (SVG) is damaged, or states no size. Have it saved anew with a width and height, or as PDF.';
    case 'svg-not-lines':
      return `This drawing (SVG) holds <${data.element}>, which would not come out as it was drawn. Turn its text into outlines and its copies into shapes, or have it saved as PDF.`;
    case 'needs-password':
      return 'This PDF opens only with a password, so its pages cannot be read. Ask the sender for a copy without one.';
    case 'needs-key':
      return 'This PDF is locked for certain people, with their keys (a certificate), so its pages cannot be read. Ask the sender for a copy that is not locked.';
    case 'damaged':
      return 'This PDF is damaged: its parts cannot be found. Ask for it again, or have the sender save it anew.';
    case 'no-pages':
      return 'This PDF has no pages in it. Check that the right file was sent.';
    case 'page-unreadable':
      return `Page ${data.page} of this PDF cannot be read, so the file is probably cut short. Ask for it again.`;
    case 'bad-page-box':
      return `Page ${data.page} has no usable size (its MediaBox is missing or empty). Have the sender save the PDF anew.`;
    case 'page-too-large':
      return `Page ${data.page} is ${data.metres} m long, more than a PDF page can be (200 inches, 5.08 m), so no press could be given it. Have the sender save the PDF at the size it is to be printed.`;
    case 'too-many-pages':
      return `This file has more than ${data.most} pages, more than can be taken in at once. Split it and take in the parts.`;
    case 'unpacks-too-large':
      return 'A part of this PDF unpacks to more than 256 MB, which no page needs. It was left alone; ask for a plain PDF.';
    case 'too-large':
      return `This file is larger than ${data.most} MB, the most that can be taken in. Split it, or reduce its images.`;
    case 'too-slow':
      return `Reading this took longer than ${data.seconds} s and was stopped. The file may be damaged; have the sender save it anew.`;
    case 'too-much-memory':
      return `Reading this took more than ${data.mb} MB of memory and was stopped. Split the file, or have it saved anew.`;
    case 'upload-cut-off':
      return 'The file did not arrive whole: the connection was cut. Nothing was stored; drop it again.';
    case 'source-changed':
      return 'A source file is not the one that was surveyed. Take it in again.';
    case 'source-missing':
      return `The file “${data.name}” was not given. Give every file that the docket takes in.`;
    case 'no-pages-in-job':
      return 'There are no pages to hand over. Take in a file first.';
    case 'no-sheets':
      return 'These pages go on no sheets. Choose a scheme on Sheets, or hand over the pages in reading order.';
    case 'no-template':
      return 'Only a leaflet has a blank template. Choose a leaflet on Sheets, or take this output out.';
    case 'nothing-to-cut':
      return 'This job has no ink and no layer for a cutter to follow. Lay a die line over its pages, or put cut paths on its sheets.';
    case 'cut-not-found':
      return `No path is drawn ${data.what === 'layer' ? 'on the layer' : 'in the ink'} ${data.name}, so the cutter would cut nothing. Choose another one, or cut ${data.of === 'pages' ? 'the sheets' : 'the pages'} instead.`;
    case 'no-bookmarks':
      return 'No page that goes out has a bookmark of this level, so there is nothing to split at. Choose another level, or split by a number of pages.';
    case 'no-series':
      return 'The pages have no number series, so there is nothing to split at. Number them first, or split in another way.';
    case 'no-pieces':
      return 'No page belongs to a piece, so there is nothing to split by. Name the pieces first, or split in another way.';
    case 'pages-unread':
      return `Which pages go out cannot be read: ${data.reason} Say it anew where the output is set up.`;
    case 'name-unread':
      return `The name of the files cannot be read: ${data.reason} Change it where the output is set up.`;
    case 'recipe-newer':
      return `This recipe was saved by a newer Folder (it says version ${data.version}). Bring Folder up to date, or save the recipe anew from a job.`;
    case 'recipe-unknown-step':
      return `Step ${data.step} of this recipe is of the kind “${data.kind}”, which is not known here. It was probably saved by a newer Folder.`;
    case 'recipe-invalid':
      return `This recipe cannot be read: ${data.reason}. Take it as it was saved, or save it anew from a job.`;
    case 'value-missing':
      return `The recipe asks for “${data.label}” (${data.name}), and nothing was said. Say it, so that the steps know what to do.`;
    case 'value-wrong':
      return `“${data.label}”${data.name ? ` (${data.name})` : ''} cannot be what was said: ${data.reason}. Say something else; the recipe itself is as it was.`;
    case 'value-unknown':
      return `The recipe asks for nothing named “${data.name}”. Check how it is spelt.`;
    case 'no-such-recipe':
      return `There is no recipe “${data.name}” any more. Choose another one.`;
    case 'bad-replay':
      return 'What is to be replayed, and on what, was not said in full. Choose a recipe, and jobs or files.';
    case 'run-stopped':
      return `${data.count === 1 ? 'A finding says' : `${data.count} findings say`} stop (${data.what}), so nothing was handed over. The job is there: open it, mend it, and hand it over from there.`;
    case 'bad-drop-folder':
      return 'A drop folder needs a name and a recipe. Give it both.';
    case 'drop-name':
      return `“${data.name}” cannot be the name of a drop folder: it is one plain directory name, without slashes, colons or dots in front. Choose another one.`;
    case 'drop-taken':
      return `There is a drop folder “${data.name}” already. Choose another name.`;
    case 'drop-outside':
      return `“${data.name}” leads out of the directory that drop folders are in (it is a link, or something in it is). Take the link away.`;
    case 'drop-unwritable':
      return `The directory of “${data.name}” cannot be read or written (${data.reason}), so no file is taken from it. Give Folder the right to it.`;
    case 'drop-full':
      return `The disk that “${data.name}” is on is full, so no file is taken from it. Make room: the files that wait are taken by themselves then.`;
    case 'no-such-drop-folder':
      return 'This drop folder is no longer there: somebody had Folder forget it. Its directory stays; add it anew.';
    case 'drop-busy':
      return `${data.count === 1 ? 'A file of this folder is' : `${data.count} files of this folder are`} still being worked. Pause it, wait until they are done, then forget it.`;
    case 'drop-file-gone':
      return 'The file was taken away again before it could be read. Drop it anew.';
    case 'drop-no-file':
      return 'This is no plain file but a link or a device, and is not followed. Drop the file itself.';
    case 'drop-unreadable':
      return `The file cannot be opened (${data.reason}). Give Folder the right to read it, and drop it again.`;
    case 'bad-output':
      return `This cannot be handed over as it is set up: ${data.reason}. Mend what is marked wrong first.`;
    case 'stop-findings':
      return `${data.count === 1 ? 'A finding says' : `${data.count} findings say`} stop, and nothing was made. Mend what is wrong, or write why it goes out all the same.`;
    case 'disagrees':
      return sayDisagreement(data);
    case 'disk-full':
      return 'The disk is full, and nothing was written. Make room, then try again.';
    case 'no-such-job':
      return 'This job is no longer there: somebody deleted it. Go back to the jobs.';
    case 'no-such-output':
      return 'This file is no longer there: it was deleted, or is not made yet. Make it again under Hand over.';
    case 'no-such-source':
    case 'no-such-page':
      return 'This file is no longer there: no job uses it any more. Take it in again.';
    case 'stale':
      return 'The job was changed in another window meanwhile, and this change was not put over it. Look at it as it is now, and do it again.';
    case 'bad-place':
      return 'There is no such place among the pages any more, so the file was not taken in. Choose where its pages go.';
    case 'not-json':
      return 'What was sent cannot be read, and nothing was changed. Load the page anew and try again.';
    case 'stopped-early':
      return 'The work ended without a word, as when a file brings the program that reads it down. Nothing else was harmed. Try again; where it happens twice, save the file anew with the program that made it.';
    case 'bad-stamp':
      return 'A stamp is kept under a name, with its file. Give it a name, and choose a file for it.';
    case 'bad-kept':
      return 'It is kept under a name of 1 to 60 letters. Give it one, and mend what is marked wrong first.';
    case 'bad-size':
      return 'A size needs a name and two sides longer than 0. Give it both.';
    case 'size-name-taken':
      return `“${data.name}” is the name of a standard size. Choose another one, so that nobody mistakes them.`;
    case 'cancelled':
      return 'Cancelled. Nothing was written.';
    case 'no-revision':
      return 'Nothing says which state of the job this change was made of, so it could overwrite what somebody else did. Load the page anew, and do it again.';
    case 'docket-newer':
      return `This docket was written by a newer Folder (it says version ${data.version}). Bring Folder up to date, or save the docket anew from the older one.`;
    case 'job-newer':
      return `This job was written by a newer Folder (its docket says version ${data.version}), and this one cannot read it without losing something. Bring Folder up to date to open it; its docket can be downloaded as it is.`;
    case 'job-damaged':
      return `The docket of this job cannot be read (${data.reason}). It can be downloaded as it is, mended and given to a new job; the files are unharmed.`;
    case 'json-too-large':
      return `This is longer than ${data.most} MB, more than any docket or recipe needs. Nothing was changed; look whether the right file was sent.`;
    case 'json-too-deep':
      return `Values lie more than ${data.most} deep in one another, which no docket or recipe does. Nothing was changed; look whether the right file was sent.`;
    case 'text-unfit':
      return 'A text holds a character that cannot be kept (U+0000, or half of a pair). Nothing was changed; take the character away and send it again.';
    case 'database-away':
      return 'The database does not answer, so nothing can be read or kept just now. What you changed stays in this window; it is sent as soon as the database is back.';
    case 'server-fault':
      return 'Folder met a fault that nobody foresaw; nothing was changed. Try again. Whoever runs Folder finds what happened with “npm run faults”.';
    case 'worker-died':
      return `The work was begun ${data.tries} times, and each time the program that did it ended before it was through. Try again when the machine is less busy; where it happens again, save the file anew with the program that made it.`;
    case 'bad-archive':
      return 'This is no job that Folder saved, or it is damaged: a part of it is missing or not what it should be. Nothing was opened; save the job as a file again, and bring that.';
    case 'no-such-upload':
      return 'This upload is no longer there: it was taken in already, or lay unfinished for more than a day. Drop the file again.';
    case 'not-again':
      return 'This cannot be tried again: it did not fail, or its file was not kept. Drop the file anew.';
    case 'person-name':
      return 'A name has 1 to 60 letters, figures, spaces, dots, hyphens or apostrophes, and begins with a letter or figure. Choose another one.';
    case 'password-short':
      return `A password has ${data.least} to ${data.most} characters: a handful of words that do not belong together is easy to keep and hard to guess. Choose a longer one.`;
    case 'password-name':
      return 'This password is little more than the name. Choose another one.';
    case 'sign-in-wrong':
      return 'Name or password is wrong. Try again, or ask whoever runs Folder here for a new password.';
    case 'sign-in-often':
      return `This was tried too often. Wait ${data.minutes} minutes, or ask whoever runs Folder here for a new password.`;
    case 'signed-out':
      return 'You are signed out. Sign in again, in another tab where something is not saved here yet: it is kept meanwhile.';
    case 'door-host':
      return 'Folder is not known by the name in this address, so nothing is told here: a foreign page could stand behind it. Use the address that Folder prints at its start, or start it with ORIGIN set to this one.';
    case 'door-origin':
      return 'This was asked by a page that is not Folder’s, and was not done. Do it from Folder itself.';
    case 'door-type':
      return 'What was sent does not say what it is (its content type is missing), and was not read. Send JSON as application/json.';
    case 'door-address':
      return 'This address cannot be read: it holds signs that stand for no text. Nothing was changed; go back to the jobs.';
    case 'docket-invalid':
      return `The docket cannot be read: ${data.reason}. Take one that Folder saved, or mend this in it.`;
    default:
      return `The work stopped for a reason that was not foreseen (${code}${data.reason ? `: ${data.reason}` : ''}). Try again; the job itself is unharmed.`;
  }
}
