import { t } from './language';
import { StepProblem, type StepProblemCode, type StepProblems } from '../core/docket/stepKind';
import { TOKENS } from '../core/model/lines';
import { SelectionError } from '../core/select/selection';
import { sayPatternError } from './patterns';
import { saySelectionError } from './selections';
import { ofAnyKind } from '../core/kinds';

/** Why a step does not apply, and what to do. */
const SENTENCES: { [Code in StepProblemCode]: (data: StepProblems[Code]) => string } = {
  'source-missing': (data) => t`The file “${data.name}” is not here. Take it in again.`,
  'source-page-missing': (data) => t`${data.name ? `“${data.name}”` : t`The file`} has no page ${data.page}.`,
  'into-itself': (data) =>
    t`Page ${data.position} is one of the pages to be moved. Choose a place beside another page.`,
  'empty-list': () => t`There are no pages yet.`,
  'nothing-left': (data) =>
    t`Nothing of page ${data.position} would be left: the crop takes off as much as the page has. Cut off less.`,
  'not-measured': (data) =>
    t`Page ${data.position} is still being measured, so what is on it is not known yet. It is taken into account as soon as it is.`,
  'no-ink': () => t`Nothing is drawn on these pages, so there is no ink to crop to.`,
  'no-such-format': () => t`The format that this step puts on pages is no longer there. Choose another one.`,
  'panel-stays': (data) => t`${data.panel} is a panel and stays on its leaf. Give it back to the list first.`,
  'panel-at-head': () =>
    t`A fold-out hangs on a fore edge at the side; this book is bound at the head. Bind it at the left or right.`,
  'panel-on-loose': () =>
    t`A fold-out hangs on a leaf with two faces; these are loose pages. Choose facing pages for the book first.`,
  'too-many-faces': (data) =>
    t`${data.given} pages do not go on these panels, which have ${data.room} faces. Add panels, or choose fewer pages.`,
  'shows-itself': (data) =>
    t`Page ${data.position} belongs to the leaf itself. Choose other pages for its panel.`,
  'no-panels': () => t`There is no panel among these pages. Panels look like 5+1, or panels for all.`,
  'not-facing': (data) =>
    t`Page ${data.position} does not face another one of these pages. Choose both pages of a spread.`,
  'cover-count': (data) =>
    t`${data.pages} pages were chosen and ${data.parts} parts of a cover named. Say of each page what it is.`,
  'cover-twice': (data) =>
    t`The cover would have its ${data.part.replace('-', ' ')} twice. Say of one of these pages that it is something else.`,
  'cover-of-nothing': () =>
    t`All pages would become the cover, and nothing would be left of the book. Choose fewer.`,
  'split-outside': (data) =>
    t`The cut falls outside page ${data.position}, or leaves nothing of it. Cut nearer to its middle, or leave out less.`,
  'scans-odd': (data) =>
    t`${data.scans} scans cannot be whole sheets: each has a front and a back. One is missing, or one is there too many.`,
  'signature-count': (data) =>
    t`${data.scans} scans cannot be whole signatures: each is scanned front and back. One is missing, or one is there too many.`,
  'order-repeats': (data) => t`Part ${data.part} is in the list twice. Each part of the scans has one place.`,
  'order-gaps': (data) =>
    t`Part ${data.part} is not in the list. All ${data.parts} parts of the scans need a place.`,
  'order-outside': (data) => t`There is no part ${data.part}: these scans have ${data.parts}.`,
  'series-overlap': (data) =>
    t`Two series begin at page ${data.position}, and a page has one number. Let one of them begin elsewhere, or remove it.`,
  'series-at-panel': () =>
    t`A series begins at a page of the list; panels follow the leaf that they hang on. Choose the page.`,
  'empty-pattern': (data) => sayPatternError({ code: 'empty-pattern', ...data }, TOKENS),
  'unknown-token': (data) => sayPatternError({ code: 'unknown-token', ...data }, TOKENS),
  'open-brace': (data) => sayPatternError({ code: 'open-brace', ...data }, TOKENS),
  'no-margins': (data) =>
    t`Page ${data.position} has no margins to measure from. Measure from the trim, or give it margins first.`,
  'place-taken': (data) =>
    t`Two lines stand at ${data.place}, one on the other. Give one of them another place.`,
  'one-graphic': (data) => t`${data.count} pages were chosen; one page at a time is laid on others.`,
  'nothing-on-page': (data) =>
    t`Page ${data.position} is blank, so nothing would be laid on the others. Choose another page.`,
  'nothing-under': () => t`There is no page to lay it on besides itself. Choose other pages.`,
  'area-empty': () => t`The area chosen has nothing of the page in it. Choose it again.`,
  'same-ink': (data) => t`“${data.name}” has this name already. Give it another one.`,
  'no-such-ink': (data) =>
    t`No page has a spot ink named “${data.name}”. Choose one of those that are there.`,
  'no-column': () => t`Nothing is left between these margins. Make them or the gaps smaller.`,
};

/** The sentence for a step that does not apply. */
export const sayStepProblem = (problem: StepProblem | SelectionError): string =>
  problem instanceof SelectionError
    ? saySelectionError(problem)
    : ofAnyKind<(data: StepProblem['data']) => string>(SENTENCES[problem.code])(problem.data);
