import { edgesOf, idOf, type Axis, type Facet, type FlatSheet, type Folded } from './fold';
import { entryAt, entryOf, firstOf, foundIn } from '../entries';

/** A border between two panels that was folded. */
export interface Crease {
  /** Ids of the panels on the flat sheet before and after it (see `idOf`). */
  panels: readonly [number, number];
  /** Parallel to this axis. */
  axis: Axis;
  /** The fold that made it, from 0. */
  fold: number;
  /** On the flat sheet, seen from its front, in points: its place, and from where to where it reaches. */
  at: number;
  from: number;
  to: number;
  /** Seen from the front of the flat sheet: a valley closes over the front, a mountain over the back. */
  way: 'valley' | 'mountain';
  /** The side of the folded piece's panels at which it lies. */
  side: 'left' | 'right' | 'foot' | 'head';
}

/** All creases of a folded sheet. */
export function creasesOf(sheet: FlatSheet, { stack, joints }: Folded): Crease[] {
  const [xs, ys] = [edgesOf(sheet.columns), edgesOf(sheet.rows)];
  const depth = new Map(stack.map((facet, n) => [idOf(facet), n]));
  return joints.flatMap(({ a, b, axis, fold }): Crease[] => {
    if (fold === undefined) return [];
    const upper = entryOf(depth, a) < entryOf(depth, b) ? a : b;
    const [one, top] = [entryAt(stack, entryOf(depth, a)), entryAt(stack, entryOf(depth, upper))];
    const mirrored = (axis === 'vertical' ? one.matrix[0] : one.matrix[3]) < 0;
    // The border lies at the later edge of the panel before it, which a mirrored panel has first.
    const side = axis === 'vertical' ? (mirrored ? 'left' : 'right') : mirrored ? 'foot' : 'head';
    const [places, spans] = axis === 'vertical' ? [xs, ys] : [ys, xs];
    const [index, along] = axis === 'vertical' ? [one.column, one.row] : [one.row, one.column];
    return [
      {
        panels: [a, b],
        axis,
        fold,
        at: entryAt(places, index + 1),
        from: entryAt(spans, along),
        to: entryAt(spans, along + 1),
        way: top.up === 'back' ? 'valley' : 'mountain',
        side,
      },
    ];
  });
}

/** How many layers of paper lie at a point of a folded piece. */
export const layersAt = (stack: readonly Facet[], x: number, y: number): number =>
  stack.filter(({ outline: o }) => x > o.x0 && x < o.x1 && y > o.y0 && y < o.y1).length;

/** The most layers that lie anywhere in a folded piece. */
export const mostLayers = (stack: readonly Facet[]): number =>
  Math.max(...stack.map(({ outline: { x0, x1, y0, y1 } }) => layersAt(stack, (x0 + x1) / 2, (y0 + y1) / 2)));

/** A panel as it hangs on the one before it: about which line of the flat sheet it turns, and at which fold; flat where none. */
export interface Hinge {
  panel: number;
  parent: number;
  axis: Axis;
  at: number;
  fold?: number;
  way?: Crease['way'];
}

/** Every panel but the first of the stack, each after the one that it hangs on: what an animation turns, from the top panel outwards. */
export function hingesOf(sheet: FlatSheet, folded: Folded): Hinge[] {
  const creases = new Map(creasesOf(sheet, folded).map((crease) => [crease.panels.join(), crease]));
  const places = { vertical: edgesOf(sheet.columns), horizontal: edgesOf(sheet.rows) };
  const root = idOf(firstOf(folded.stack));
  const met = new Set([root]);
  const hinges: Hinge[] = [];
  for (const parent of met)
    for (const { a, b, axis } of folded.joints) {
      const panel = a === parent ? b : b === parent ? a : undefined;
      if (panel === undefined || met.has(panel)) continue;
      met.add(panel);
      const crease = creases.get([a, b].join());
      const before = foundIn(folded.stack, (facet) => idOf(facet) === a);
      hinges.push({
        panel,
        parent,
        axis,
        at: entryAt(places[axis], (axis === 'vertical' ? before.column : before.row) + 1),
        ...(crease ? { fold: crease.fold, way: crease.way } : {}),
      });
    }
  return hinges;
}
