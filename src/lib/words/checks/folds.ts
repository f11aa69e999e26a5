import { formatLength } from '../../core/measure/formatLength';
import { plural } from '../plural';
import { sayFoldError } from '../press';
import type { CheckWords } from './checkWords';

export const folds: CheckWords<'folds'> = {
  found: {
    'fold-impossible': (finding, { unit }) => ({
      title: 'Paper cannot be folded like this',
      text: `${sayFoldError(finding.error, (points) => formatLength(points, unit))} Give the panel the width that the fold asks for, or choose another fold.`,
    }),
    'fold-in-tight': (finding, { unit }) => {
      const [what, wide, less, more] =
        finding.axis === 'vertical'
          ? [`Panel ${finding.panel}`, 'wide', 'narrower', 'wider']
          : [`Row ${finding.panel} of panels, from the head,`, 'high', 'lower', 'higher'];
      return {
        title: `${what} has no room to fold in`,
        text: `It is ${finding.room < 0 ? `${formatLength(-finding.room, unit)} ${more} than` : finding.room < 0.01 ? `as ${wide} as` : `only ${formatLength(finding.room, unit)} ${less} than`} what it folds into; ${formatLength(finding.wanted, unit)} are wanted. It buckles, or the edge shows. Make it ${less}.`,
      };
    },
    'panels-missing': (finding) => ({
      title: 'Panels are missing',
      text: `A leaflet of this fold takes ${plural(finding.each, 'page')}, ${finding.given} are there: the rest stay white. Add the pages, or choose whole sides.`,
    }),
    'creep-over-safe': (finding, { unit }) => ({
      title: 'Creep ends at the safe margin',
      text: `The innermost leaf should move into the spine by ${formatLength(finding.wanted, unit)}; ${formatLength(finding.done, unit)} are safe, so it stops there, and ${plural(finding.leaves, 'leaf is', 'leaves are')} trimmed up to ${formatLength(finding.wanted - finding.done, unit)} too near to the art. Narrow the inner pages instead, or use more, thinner signatures.`,
    }),
    'caliper-unknown': () => ({
      title: 'How thick is the paper?',
      text: 'Creep follows from the thickness of a leaf, and neither that nor grammage and bulk are known. Nothing is moved until they are typed.',
    }),
    'across-grain': () => ({
      title: 'The spine folds across the grain',
      text: 'Folded across its grain, paper cracks at the fold and the pages do not lie flat. Use paper with the other grain, or turn the work on the sheet.',
    }),
  },
  mends: {
    'worked-widths': () => 'Use the widths the fold asks for',
    'creep-by-scale': () => 'Narrow the inner pages instead',
    'turn-work': () => 'Turn the work on the sheet',
  },
};
