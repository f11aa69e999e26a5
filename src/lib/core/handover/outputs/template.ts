import * as z from 'zod';
import { cut, range, SplitProblem, type Cuttable } from '../parts';
import { outputBase } from '../split';
import { defineOutput } from './outputKind';

const isFolded = ({ docket }: Cuttable): boolean => docket.scheme.kind === 'leaflet';

/** The blank template of a folded leaflet, for whoever designs it. */
export const template = defineOutput(z.object({ ...outputBase, kind: z.literal('template') }))({
  kind: 'template',
  extension: () => 'pdf',
  possible: isFolded,
  fresh: () => ({ kind: 'template' }),
  parts(work) {
    if (!isFolded(work)) throw new SplitProblem('no-template');
    return cut(range(2), undefined, (side) => side + 1);
  },
});
