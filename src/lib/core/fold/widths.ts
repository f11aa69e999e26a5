import { overlap } from '../measure/box';
import { creasesOf } from './creases';
import { FoldError, foldStates, idOf, type Axis, type Facet, type Folded } from './fold';
import type { Pattern } from './patterns';
import { entryAt, entryOf, firstOf } from '../entries';
import { TOLERANCES } from '../measure/tolerances';

/** A panel must end short of something, or it buckles. Panels are columns or rows, from 0. */
export interface Clearance {
  axis: Axis;
  /** The panel that must be narrower. */
  panel: number;
  /** What it lies in: a crease (by its fold, from 0), with the panels whose widths it has to stay under; or it meets another panel's free edge. */
  against: { crease: number; than: readonly number[] } | { meets: number };
  /** Layers of paper that are folded into the crease. */
  layers: number;
}

/** All that the panels of a pattern must keep clear of, from folding it with panels of its shares; none if that cannot be done. */
export function clearancesOf({ columns, rows, folds }: Pattern): Clearance[] {
  const sheet = { columns, rows };
  let states: Folded[];
  try {
    states = foldStates(sheet, folds);
  } catch (error) {
    if (error instanceof FoldError) return [];
    throw error;
  }
  const found: Clearance[] = [];
  folds.forEach((_, number) => {
    const state = entryAt(states, number + 1);
    const { stack } = state;
    const depth = new Map(stack.map((facet, n) => [idOf(facet), n]));
    const creases = creasesOf(sheet, state);
    for (const crease of creases.filter(({ fold }) => fold === number)) {
      const pair = crease.panels.map((id) => entryAt(stack, entryOf(depth, id)));
      const [from, to] = pair.map((facet) => entryOf(depth, idOf(facet))).sort((a, b) => a - b);
      const edge = ({ outline }: Facet) =>
        ({ left: outline.x0, right: outline.x1, foot: outline.y0, head: outline.y1 })[crease.side];
      const inside = stack
        .slice(from! + 1, to)
        // What is creased by the same fold lies nested: that is creep, and takes no allowance.
        .filter(
          (facet) =>
            Math.abs(edge(facet) - edge(firstOf(pair))) < TOLERANCES.sum && over(facet, firstOf(pair)),
        )
        .filter(
          (facet) =>
            !creases.some(
              ({ fold, side, panels }) =>
                fold === number && side === crease.side && panels.includes(idOf(facet)),
            ),
        );
      for (const facet of inside)
        found.push({
          axis: crease.axis,
          panel: indexOf(facet, crease.axis),
          against: { crease: number, than: pair.map((each) => indexOf(each, crease.axis)) },
          layers: inside.length,
        });
    }
    found.push(...meetings(stack, entryAt(states, number).stack));
  });
  return unique(found);
}

const indexOf = ({ column, row }: Facet, axis: Axis): number => (axis === 'vertical' ? column : row);
const AXES = ['vertical', 'horizontal'] as const;
const ACROSS = { vertical: 'horizontal', horizontal: 'vertical' } as const;
type Span = [from: number, to: number];
/** Where a facet begins and ends across the folds of an axis. */
const spanOf = ({ outline: { x0, x1, y0, y1 } }: Facet, axis: Axis): Span =>
  axis === 'vertical' ? [x0, x1] : [y0, y1];
const over = (a: Facet, b: Facet): boolean => overlap(a.outline, b.outline);

/** Panels that were just folded in, and whose free edge meets another's: the two flaps of a gatefold. */
function meetings(stack: readonly Facet[], before: readonly Facet[]): Clearance[] {
  const earlier = new Map(before.map((facet) => [idOf(facet), facet.up]));
  const moved = stack.filter((facet) => earlier.get(idOf(facet)) !== facet.up);
  return moved.flatMap((one) =>
    stack.flatMap((two): Clearance[] => {
      if (two.up !== one.up) return [];
      return AXES.flatMap((axis): Clearance[] => {
        const [a, b] = [indexOf(one, axis), indexOf(two, axis)];
        if (indexOf(one, ACROSS[axis]) !== indexOf(two, ACROSS[axis]) || Math.abs(a - b) < 2) return [];
        const [p, q] = [spanOf(one, axis), spanOf(two, axis)];
        const [end, start] = p[0] <= q[0] ? [p[1], q[0]] : [q[1], p[0]];
        if (Math.abs(end - start) > TOLERANCES.sum) return [];
        const covers = stack.some(
          (under) => under !== one && under !== two && over(under, one) && over(under, two),
        );
        if (!covers) return [];
        return [
          { axis, panel: a, against: { meets: b }, layers: 1 },
          { axis, panel: b, against: { meets: a }, layers: 1 },
        ];
      });
    }),
  );
}

function unique(found: readonly Clearance[]): Clearance[] {
  const known = new Map(found.map((each) => [JSON.stringify([each.axis, each.panel, each.against]), each]));
  return [...known.values()];
}

/** Lengths in points: how much narrower a panel is made because it folds in, and the paper's thickness. */
export interface Allowance {
  allowance: number;
  caliper: number;
}

/** Of a panel: its width, what was taken off its share of the sheet, and for what. */
export interface WorkedWidth {
  width: number;
  off: number;
  because: readonly Clearance[];
}

/**
 * The widths of all columns, or the heights of all rows, that make up a length: each panel that folds in is narrower than
 * what it folds into by the allowance and the thickness of what is folded in with it; two that meet share the allowance.
 */
export function panelWidths(
  pattern: Pattern,
  axis: Axis,
  total: number,
  { allowance, caliper }: Allowance,
): WorkedWidth[] {
  const parts = axis === 'vertical' ? pattern.columns : pattern.rows;
  const all = clearancesOf(pattern).filter((each) => each.axis === axis);
  const off = parts.map(() => 0);
  // A panel that folds into one that is narrower itself is narrower still; no chain is longer than there are panels.
  for (let round = 0; round < parts.length; round++)
    for (const { panel, against, layers } of all) {
      const wanted =
        'meets' in against
          ? allowance / 2
          : Math.max(...against.than.map((n) => entryAt(off, n))) + allowance + layers * caliper;
      off[panel] = Math.max(entryAt(off, panel), wanted);
    }
  const share =
    (total + off.reduce((sum, each) => sum + each, 0)) / parts.reduce((sum, each) => sum + each, 0);
  return parts.map((part, n) => ({
    width: part * share - entryAt(off, n),
    off: entryAt(off, n),
    because: all.filter(({ panel }) => panel === n),
  }));
}

/** A panel that has not the room that its fold asks for: how much it is short of its neighbours, and how much it should be, in points. */
export interface TightPanel {
  axis: Axis;
  panel: number;
  room: number;
  wanted: number;
}

/** Panels of given widths that fold in without the room to. */
export function tightPanels(
  pattern: Pattern,
  { columns, rows }: Pick<Pattern, 'columns' | 'rows'>,
  { allowance, caliper }: Allowance,
): TightPanel[] {
  const found = clearancesOf(pattern).map(({ axis, panel, against, layers }): TightPanel => {
    const widths = axis === 'vertical' ? columns : rows;
    const own = entryAt(widths, panel);
    if ('meets' in against) {
      const between = Math.min(panel, against.meets) + 1;
      const together = own + entryAt(widths, against.meets);
      return { axis, panel, room: (entryAt(widths, between) - together) / 2, wanted: allowance / 2 };
    }
    const narrowest = Math.min(...against.than.map((n) => entryAt(widths, n)));
    return { axis, panel, room: narrowest - own, wanted: allowance + layers * caliper };
  });
  return found.filter(({ room, wanted }) => room < wanted - TOLERANCES.place);
}

/**
 * The widths made narrower where a fold asks for it, all others as they are, so that the finished piece keeps its size. A
 * panel that folds into one that was made narrower itself is narrower still.
 */
export function narrowedWidths(
  pattern: Pattern,
  axis: Axis,
  widths: readonly number[],
  { allowance, caliper }: Allowance,
): number[] {
  const made = [...widths];
  const all = clearancesOf(pattern).filter((each) => each.axis === axis);
  for (let round = 0; round < widths.length; round++)
    for (const { panel, against, layers } of all) {
      const most =
        'meets' in against
          ? (entryAt(widths, Math.min(panel, against.meets) + 1) - allowance) / 2
          : Math.min(...against.than.map((n) => entryAt(made, n))) - allowance - layers * caliper;
      made[panel] = Math.min(entryAt(made, panel), most);
    }
  return made;
}
