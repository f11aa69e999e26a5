import type { Finding, Mend } from '../core/checks/finding';
import type { Size } from '../core/measure/box';
import { formatLength, formatSize } from '../core/measure/formatLength';
import type { Unit } from '../core/measure/unit';
import { nameSize } from '../core/paper/sizes';
import { opposite, type Side } from '../core/pages/page';
import { sayStepProblem } from './errors';
import { SPINE_OF, WHERE } from './book';

export interface Said {
  /** What is wrong, in a few words. */
  title: string;
  /** What it will do on paper, and what to do. */
  text: string;
}

const plural = (count: number, one: string, many = `${one}s`): string =>
  count === 1 ? `1 ${one}` : `${count} ${many}`;

/** A size with its name where it has one: `A5, 148 × 210 mm`. */
export function saySize(size: Size, unit: Unit): string {
  const known = nameSize(size);
  return `${known ? `${known.name}${known.landscape ? ' landscape' : ''}, ` : ''}${formatSize(size.width, size.height, unit)}`;
}

/** The words for a finding, lengths in the job's unit. */
export function sayFinding(finding: Finding, unit: Unit): Said {
  const size = ({ width, height }: Size) => formatSize(width, height, unit);
  const pages = plural(finding.pages.length, 'page');
  switch (finding.code) {
    case 'step-failed':
      return {
        title: 'A step does not apply',
        text: `${sayStepProblem(finding.problem)} The pages pass this step unchanged until it is edited or taken out.`,
      };
    case 'mixed-sizes':
      return {
        title: 'One size is not like the rest',
        text: `${pages} ${finding.pages.length === 1 ? 'is' : 'are'} not ${saySize(finding.commonest, unit)} like the others. Trimmed together, they come out cut off or with white edges.`,
      };
    case 'leaf-two-sizes':
      return {
        title: 'A leaf with two sizes',
        text: `Its front is ${size(finding.front)}, its back ${size(finding.back)}. One piece of paper has one size: make both the same.`,
      };
    case 'bleed-missing':
      return {
        title: 'No bleed supplied',
        text: `${pages} end${finding.pages.length === 1 ? 's' : ''} at the trim. Where colour runs to the edge, a cut 1 mm off leaves a white line: ask for art with 3 mm bleed.`,
      };
    case 'bleed-short':
      return {
        title: 'The art does not reach the bleed',
        text: `${pages}: ${formatLength(finding.wanted, unit)} asked for, ${formatLength(finding.there, unit)} there. The strip between stays white; ask for art with more bleed.`,
      };
    case 'over-safe-area':
      return {
        title: 'Too near to the trim',
        text: `${pages} ${finding.pages.length === 1 ? 'has' : 'have'} text or art ${finding.nearest < 0 ? 'over the trim' : `${formatLength(finding.nearest, unit)} from the trim`}; ${formatLength(finding.safe, unit)} are safe. A cut 1 mm off takes some of it away or leaves it looking crooked.`,
      };
    case 'low-resolution':
      return {
        title: 'An image too coarse for its size',
        text: `${pages}: ${Math.round(finding.ppi)} pixels an inch at the size it is printed. Under 200 it looks soft; make it smaller or ask for a better one.`,
      };
    case 'pairs-apart':
      return {
        title: 'The pairs have come apart',
        text: `Page 1 of ${finding.name || 'the interior'} was made to lie ${WHERE[finding.side]} and now lies ${WHERE[opposite(finding.side)]}, so facing pages no longer face. A cover put in front does this; a blank inside each cover mends it.`,
      };
    case 'blanks-wanted':
      return {
        title: `${plural(finding.count, 'blank')} fill the last sheet`.replace(
          '1 blank fill',
          '1 blank fills',
        ),
        text: `${plural(finding.total, 'page')} do not divide by 4. ${finding.pad === 'end' ? 'The blanks go after the last page' : 'The blanks go before the last page, which stays the back cover'}.`,
      };
    case 'first-page-side':
      return {
        title: `The first page lies ${WHERE[opposite(finding.side)]}`,
        text: `A stitched booklet with its spine at the ${SPINE_OF[finding.side]} begins ${WHERE[finding.side]}: its outer sheet folds round the others with page 1 in front.`,
      };
    case 'sheet-too-small':
      return {
        title: 'The sheet is too small',
        text: `Two pages do not fit on ${size(finding.sheet)}. With bleed and marks they need ${size(finding.needed)}.`,
      };
    case 'bleed-off-sheet':
      return {
        title: 'The bleed runs off the sheet',
        text: `The trims fit on ${size(finding.sheet)}, the bleed does not, so edges may stay white. With bleed and marks: ${size(finding.needed)}.`,
      };
    case 'marks-off-sheet':
      return {
        title: 'No room for all marks',
        text: `Marks run off ${size(finding.sheet)} and will not show whole. With marks the sheet needs ${size(finding.needed)}.`,
      };
  }
}

/** What the button of a mend says. */
export function sayMend({ code, data = {} }: Mend): string {
  switch (code) {
    case 'blank-inside-covers':
      return data.count === 2 ? 'Blank inside each cover' : 'Blank before it';
    case 'commonest-size':
      return 'Size them like the rest';
    case 'larger-sheet':
      return `Use ${data.name}`;
    case 'same-leaf-size':
      return 'Size its back like its front';
    case 'mirror-bleed':
      return 'Mirror the edge into the bleed';
    case 'enlarge-bleed':
      return 'Enlarge the art to reach it';
    case 'first-side':
      return `First page ${WHERE[data.side as Side]}`;
    case 'fill-with-blanks':
      return data.count === 1 ? 'Put 1 blank on the docket' : `Put ${data.count} blanks on the docket`;
  }
}
