import * as z from 'zod';
import { isMeasured } from '../../pages/drawn';
import { turnIn } from '../../measure/matrix';
import type { Page, Spine } from '../../model/page';
import { arrangementSchema, gridOf, rescue, RescueError } from '../../pages/rescue';
import { resolveSelection } from '../../select/selection';
import { selectionSchema } from '../../model/selection';
import { splitPage } from '../../pages/split';
import type { Surveys } from '../../model/survey';
import { turnPage } from '../../pages/turn';
import { workOutOrder } from '../../pages/workOutOrder';
import { defineStep, StepProblem } from '../stepKind';
import { pagesOnly, stepBase } from './base';
import { splitShape } from './split';
import { entryAt, firstOf } from '../../entries';

/** Quarter turns of single scans before they are cut. */
const turnedSchema = z.object({
  /** Positions among the scans selected, from 1. */
  scans: z.array(z.number().int().min(1)).min(1).max(5000),
  by: z.union([z.literal(90), z.literal(180), z.literal(270)]),
});

/**
 * Puts scans, or sheets as they were printed, back in reading order: those that lie wrongly are turned, each is cut into
 * its pages, and these are put one after another. They come where the first scan was.
 */
export const readingOrder = defineStep(
  z.object({
    ...stepBase,
    kind: z.literal('reading-order'),
    pages: selectionSchema,
    arrangement: arrangementSchema,
    at: splitShape.at,
    gutter: splitShape.gutter,
    turned: z.array(turnedSchema).max(100).optional(),
    /** Order and turns are worked out anew from the numbers on whatever scans the step meets; what it says of them itself is not looked at. */
    byNumbers: z.literal(true).optional(),
  }),
)({
  kind: 'reading-order',
  on: 'pages',
  key: 'r',
  button: true,
  fresh: ({ chosen = 'all' }) => ({
    kind: 'reading-order',
    pages: chosen,
    arrangement: { by: 'stitched', scans: 'sheets' },
    gutter: 0,
  }),
  looksAtPages: ({ byNumbers }) => !!byNumbers,
  apply(list, given, { surveys }) {
    const selected = pagesOnly(resolveSelection(given.pages, list), list);
    const scans = selected.map((index) => entryAt(list.pages, index));
    const { spine } = list.book;
    const step = given.byNumbers ? { ...given, ...readOff(scans, selected, surveys, spine) } : given;
    const order = orderOf(scans.length, step, spine);
    const cuts = { ...gridOf(step.arrangement, spine), at: step.at, gutter: step.gutter };
    const parts = scans.map((scan, n): Page[] => {
      const by =
        step.turned?.find((each) => each.scans.includes(n + 1))?.by ??
        turnOfSheet(scan, step, surveys, spine);
      const found = splitPage(turnPage(scan, by), cuts, false);
      if (!found) throw new StepProblem('split-outside', { position: entryAt(selected, n) + 1 });
      return found;
    });
    const pages = order.map(({ scan, part, turn }) => turnPage(entryAt(entryAt(parts, scan), part), turn));
    const gone = new Set(selected);
    const first = firstOf(selected);
    return {
      ...list,
      pages: [
        ...list.pages.slice(0, first),
        ...pages,
        ...list.pages.slice(first).filter((_, n) => !gone.has(first + n)),
      ],
    };
  },
});

/**
 * How a back of a sheet that was made here is turned before it is cut: backs are looked for as the leaves of the book turn, and
 * the press may have turned the sheet the other way.
 */
function turnOfSheet(
  { art }: Page,
  { arrangement }: { arrangement: z.infer<typeof arrangementSchema> },
  surveys: Surveys,
  spine: Spine,
): 0 | 180 {
  const sheet = art && surveys[art.source]?.pages[art.index]?.sheet;
  const isFolded = arrangement.by === 'signature' || arrangement.by === 'stitched';
  if (!sheet || !isFolded || sheet.side === 'front' || turnIn(art.place)) return 0;
  return (sheet.axis === 'horizontal') === (spine === 'head') ? 0 : 180;
}

/** Order and turns of scans as the numbers on them tell. Throws StepProblem while they are not measured. */
function readOff(scans: readonly Page[], selected: readonly number[], surveys: Surveys, spine: Spine) {
  const unknown = scans.findIndex((scan) => !isMeasured(scan, surveys));
  if (unknown >= 0) throw new StepProblem('not-measured', { position: entryAt(selected, unknown) + 1 });
  const { arrangement, turned } = workOutOrder(scans, surveys, spine)!;
  return { arrangement, turned };
}

function orderOf(
  count: number,
  step: { arrangement: z.infer<typeof arrangementSchema> },
  spine: Parameters<typeof rescue>[2],
) {
  try {
    return rescue(count, step.arrangement, spine);
  } catch (error) {
    if (error instanceof RescueError) throw new StepProblem(error.problem.code, error.problem.data);
    throw error;
  }
}
