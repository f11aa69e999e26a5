import * as z from 'zod';
import { sidePlaces } from '../../sheets/plan';
import { askedOfSides } from '../agree';
import { cut, plannedOf, range } from '../parts';
import { outputBase, sideSplitSchema } from '../split';
import { defineOutput } from './outputKind';
import { entryAt } from '../../entries';

/** The sheets for the press: each page one side, front and back in turn. */
export const sheets = defineOutput(
  z.object({ ...outputBase, kind: z.literal('sheets'), split: sideSplitSchema.optional() }),
)({
  kind: 'sheets',
  counts: 'sides',
  extension: () => 'pdf',
  possible: ({ plan }) => plan !== undefined,
  fresh: () => ({ kind: 'sheets' }),
  parts(work, output) {
    const places = sidePlaces(plannedOf(work));
    return cut(range(places.length), output.split, (side) => entryAt(places, side).sheet, {
      names: ['fronts', 'backs'],
      isBack: (side) => entryAt(places, side).side === 'back',
    });
  },
  sheetSized: () => true,
  asked: (work) => work.plan && askedOfSides(work, work.plan),
});
