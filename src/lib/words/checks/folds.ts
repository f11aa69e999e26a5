import { t } from '../language';
import { formatLength } from '../../core/measure/formatLength';
import { plural } from '../plural';
import { sayFoldError } from '../press';
import type { CheckWords } from './checkWords';

export const folds: CheckWords<'folds'> = {
  found: {
    'fold-impossible': (finding, { unit }) => ({
      title: t`Paper cannot be folded like this`,
      text: t`${sayFoldError(finding.error, (points) => formatLength(points, unit))} Give the panel the width that the fold asks for, or choose another fold.`,
    }),
    'fold-in-tight': (finding, { unit }) => {
      const [what, wide, less, more] =
        finding.axis === 'vertical'
          ? [t`Panel ${finding.panel}`, t`wide`, t`narrower`, t`wider`]
          : [t`Row ${finding.panel} of panels, from the head,`, t`high`, t`lower`, t`higher`];
      return {
        title: t`${what} has no room to fold in`,
        text: t`It is ${finding.room < 0 ? t`${formatLength(-finding.room, unit)} ${more} than` : finding.room < 0.01 ? t`as ${wide} as` : t`only ${formatLength(finding.room, unit)} ${less} than`} what it folds into; ${formatLength(finding.wanted, unit)} are wanted. It buckles, or the edge shows. Make it ${less}.`,
      };
    },
    'panels-missing': (finding) => ({
      title: t`Panels are missing`,
      text: t`A leaflet of this fold takes ${plural(finding.each, 'page')}, ${finding.given} are there: the rest stay white. Add the pages, or choose whole sides.`,
    }),
    'creep-over-safe': (finding, { unit }) => ({
      title: t`Creep ends at the safe margin`,
      text: t`The innermost leaf should move into the spine by ${formatLength(finding.wanted, unit)}; ${formatLength(finding.done, unit)} are safe, so it stops there, and ${plural(finding.leaves, 'leaf is', 'leaves are')} trimmed up to ${formatLength(finding.wanted - finding.done, unit)} too near to the art. Narrow the inner pages instead, or use more, thinner signatures.`,
    }),
    'caliper-unknown': () => ({
      title: t`How thick is the paper?`,
      text: t`Creep follows from the thickness of a leaf, and neither that nor grammage and bulk are known. Nothing is moved until they are typed.`,
    }),
    'across-grain': () => ({
      title: t`The spine folds across the grain`,
      text: t`Folded across its grain, paper cracks at the fold and the pages do not lie flat. Use paper with the other grain, or turn the work on the sheet.`,
    }),
  },
  mends: {
    'worked-widths': () => t`Use the widths the fold asks for`,
    'creep-by-scale': () => t`Narrow the inner pages instead`,
    'turn-work': () => t`Turn the work on the sheet`,
  },
};
