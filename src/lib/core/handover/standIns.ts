import { inksOf } from '../numbers/jobInks';
import { turnAxisOf } from '../sheets/press';
import {
  allSheets,
  countSides,
  eachSide,
  sidePlaces,
  type PrintedSide,
  type SheetPlan,
} from '../sheets/plan';
import { MARK_LAYERS } from '../model/surface';
import type { CutBy, PressTurn } from './machines';
import type { Cuttable } from './parts';

/** The edge about which the sheets of a plan are meant to be turned. */
export function plannedTurn(plan: SheetPlan): PressTurn {
  if (countSides(plan) === allSheets(plan)) return 'one-side';
  return turnAxisOf({ turn: 'short-edge' }, plan.sheet) === plan.turnAxis ? 'short-edge' : 'long-edge';
}

/** A side of a sheet as a press prints it: `sheet` from 1 in its pile. */
export interface PressSide extends Pick<PrintedSide, 'sheet' | 'side' | 'size'> {
  /**
   * Clockwise, how the side lies against what was planned when its sheet is turned over as planned: a back comes out upside
   * down where the press turns about the other edge.
   */
  turned: 0 | 180;
}

/** On one side only, each side takes a sheet of its own. */
const onItsOwn = (n: number) => ({ sheet: n + 1, side: 'front' as const });

/** The sides that a press prints as an output says, without laying them. */
export const pressPlaces = (plan: SheetPlan, { turn }: { turn?: PressTurn | undefined }) =>
  sidePlaces(plan).map((place, n) => (turn === 'one-side' ? onItsOwn(n) : place));

/** What is wrong for the work where a press prints as an output says: its backs on sheets of their own, or upside down; nothing if it does as planned. */
export function pressMistake(
  plan: SheetPlan,
  { turn }: { turn?: PressTurn | undefined },
): 'one-side' | 'other-edge' | undefined {
  const planned = plannedTurn(plan);
  if (!turn || turn === planned || planned === 'one-side') return undefined;
  return turn === 'one-side' ? 'one-side' : 'other-edge';
}

/** The sides of a plan's sheets on a press that turns as an output says. */
export function pressSides(plan: SheetPlan, { turn }: { turn?: PressTurn | undefined }): PressSide[] {
  return [...eachSide(plan)].map(({ sheet, side, size }, n) => {
    if (turn === 'one-side') return { ...onItsOwn(n), size, turned: 0 };
    // Left to itself, the press turns every sheet as it was planned.
    if (!turn || side === 'front') return { sheet, side, size, turned: 0 };
    const axis = turnAxisOf({ turn }, size);
    const meant = sheet > plan.sheetCount && plan.cover ? plan.cover.plan.turnAxis : plan.turnAxis;
    return { sheet, side, size, turned: axis === meant ? 0 : 180 };
  });
}

/**
 * What a cutter may follow in the pages or the sheets of a job, the likeliest first: layers that are laid over for cutting,
 * which know the piece's own outline and its holes; the cut paths of sheets, which know its trims alone; then other layers for
 * tools, the inks of all these, and every other spot ink.
 */
export function cutsOf(
  { list, surveys, docket }: Pick<Cuttable, 'list' | 'surveys' | 'docket'>,
  of: 'pages' | 'sheets',
): CutBy[] {
  const { scheme, steps } = docket;
  const paths = of === 'sheets' && 'marks' in scheme && scheme.marks.paths === true;
  const layers = steps.flatMap((step) =>
    step.layer !== undefined && !step.off && step.purpose !== 'printing'
      ? [{ ...step, layer: step.layer }]
      : [],
  );
  const byLayer = ({ layer }: { layer: string }): CutBy => ({ what: 'layer', name: layer });
  const inks = inksOf(list, surveys, docket).filter(({ kind }) => kind === 'spot');
  const tools = new Set(layers.map(({ id }) => id));
  const isTool = ({ steps: by }: (typeof inks)[number]) => by.some((id) => tools.has(id));
  const found: CutBy[] = [
    ...layers.filter(({ purpose }) => purpose === 'cutting').map(byLayer),
    ...(paths ? [{ what: 'layer' as const, name: MARK_LAYERS['cut-path'].name }] : []),
    ...layers.filter(({ purpose }) => purpose !== 'cutting').map(byLayer),
    ...[...inks]
      .sort((a, b) => Number(isTool(b)) - Number(isTool(a)))
      .map(({ name }) => ({ what: 'ink' as const, name })),
  ];
  const seen = new Set<string>();
  return found.filter(({ what, name }) => !seen.has(`${what} ${name}`) && seen.add(`${what} ${name}`));
}
