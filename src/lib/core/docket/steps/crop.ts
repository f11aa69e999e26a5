import * as z from 'zod';
import { distance } from '../../measure/lengthSchema';
import type { Sides } from '../../measure/box';
import { cropPage, cutTo } from '../../pages/crop';
import { inkOf, isMeasured } from '../../pages/drawn';
import { edgesOf, faceAt, frontSide, mapFaces, sideAt, sidesOf } from '../../pages/page';
import type { Edges, PageList } from '../../model/page';
import { resolveSelection } from '../../select/selection';
import { selectionSchema } from '../../model/selection';
import type { Surveys } from '../../model/survey';
import { defineStep, StepProblem } from '../stepKind';
import { cutEdges } from '../shapes';
import { stepBase } from './base';

/** What is cut off: at the book's edges (mirrored on left pages), at the sides, or all beyond the ink and its padding. */
export const cutSchema = z.discriminatedUnion('by', [
  z.object({ by: z.literal('edge'), ...cutEdges }),
  z.object({ by: z.literal('side'), head: distance, foot: distance, left: distance, right: distance }),
  z.object({
    by: z.literal('ink'),
    padding: distance,
    /** Each page by its own ink; else one cut for all, which spares the ink of every page. */
    each: z.boolean(),
    /** One cut for all mirrors on left-hand pages. */
    mirrored: z.boolean(),
  }),
]);
export type Cut = z.infer<typeof cutSchema>;

/** A cut to the ink as it is begun with: one for all pages, as it mirrors where pages face each other. */
export const cutToInk = (facing: boolean): Cut => ({ by: 'ink', padding: 0, each: false, mirrored: facing });

/** Hides what lies outside a smaller trim. Nothing is removed: *uncrop* brings it back. */
export const crop = defineStep(
  z.object({ ...stepBase, kind: z.literal('crop'), cut: cutSchema, pages: selectionSchema }),
)({
  kind: 'crop',
  on: 'pages',
  key: 'c',
  button: true,
  fresh: ({ chosen = 'all' }) => ({
    kind: 'crop',
    pages: chosen,
    cut: { by: 'edge', head: 0, foot: 0, spine: 0, fore: 0 },
  }),
  looksAtPages: ({ cut }) => cut.by === 'ink',
  apply(list, step, { surveys }) {
    const cuts = cutsOf(step.cut, resolveSelection(step.pages, list), list, surveys);
    return mapFaces(list, (page, index) => {
      const cut = cuts.get(index);
      const cropped = cut ? cropPage(page, cut) : page;
      if (!cropped) throw new StepProblem('nothing-left', { position: index + 1 });
      return cropped;
    });
  },
});

/** What a crop cuts off each selected page; pages that show no ink are left out of a crop to the ink. Throws StepProblem. */
export function cutsOf(
  cut: Cut,
  selected: readonly number[],
  list: PageList,
  surveys: Surveys,
): Map<number, Sides> {
  const side = (index: number) => sideAt(index, list);
  if (cut.by === 'edge') return new Map(selected.map((index) => [index, sidesOf(cut, side(index))]));
  if (cut.by === 'side') return new Map(selected.map((index) => [index, cut]));
  const cuts = new Map<number, Sides>();
  for (const index of selected) {
    const page = faceAt(list, index)!;
    if (!isMeasured(page, surveys)) throw new StepProblem('not-measured', { position: index + 1 });
    const ink = inkOf(page, surveys);
    if (ink) cuts.set(index, cutTo(page, ink, cut.padding));
  }
  if (!cuts.size) throw new StepProblem('no-ink');
  if (cut.each) return cuts;
  const edges = [...cuts].map(([index, sides]) =>
    edgesOf(sides, cut.mirrored ? side(index) : frontSide(list.book)),
  );
  const least = (edge: keyof Edges) => Math.min(...edges.map((each) => each[edge]));
  const shared = { head: least('head'), foot: least('foot'), spine: least('spine'), fore: least('fore') };
  return new Map(
    [...cuts.keys()].map((index) => [
      index,
      sidesOf(shared, cut.mirrored ? side(index) : frontSide(list.book)),
    ]),
  );
}
