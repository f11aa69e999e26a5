import { hasArea, intersect, type Box } from '../../measure/box';
import { applyToBox, compose, translate } from '../../measure/matrix';
import { TOLERANCES } from '../../measure/tolerances';
import type { Spine } from '../../model/page';
import { extentOf, flatOf, outlineOf, placedBy, type Layer, type Paper } from './paper';
import { entryAt } from '../../entries';

/*
 * Folded sheets laid together, bound and trimmed. The block lies with its spine on one axis and the trim of its head (of one
 * bound at the head: of its left) on the other, so that lengths are measured from both.
 */

/** How far a place lies from the spine and from the jogged edge: along the page, and across it. */
export interface Frame {
  along(box: Box): [from: number, to: number];
  across(box: Box): [from: number, to: number];
  /** The box of such spans. */
  box(along: readonly [number, number], across: readonly [number, number]): Box;
}

export const FRAMES: Record<Spine, Frame> = {
  left: {
    along: ({ x0, x1 }) => [x0, x1],
    across: ({ y0, y1 }) => [-y1, -y0],
    box: ([from, to], [head, foot]) => ({ x0: from, x1: to, y0: -foot, y1: -head }),
  },
  right: {
    along: ({ x0, x1 }) => [-x1, -x0],
    across: ({ y0, y1 }) => [-y1, -y0],
    box: ([from, to], [head, foot]) => ({ x0: -to, x1: -from, y0: -foot, y1: -head }),
  },
  head: {
    along: ({ y0, y1 }) => [-y1, -y0],
    across: ({ x0, x1 }) => [x0, x1],
    box: ([from, to], [left, right]) => ({ x0: left, x1: right, y0: -to, y1: -from }),
  },
};

/** Folded sheets, and how far the trim lies inside the edge at which each is jogged. */
export interface Jogged {
  paper: Paper;
  inside: number;
}

/** A folded sheet with its spine so far from the block's and its trim in line. */
export function jogged({ paper, inside }: Jogged, spine: Spine, from = 0): Paper {
  const { x0, x1, y1 } = extentOf(paper);
  const by = {
    left: translate(from - x0, inside - y1),
    right: translate(-from - x1, inside - y1),
    head: translate(-inside - x0, -from - y1),
  }[spine];
  return placedBy(paper, by);
}

/** Paper put where other paper opens. */
export const nested = (outer: Paper, inner: Paper): Paper => ({
  layers: [...outer.layers.slice(0, outer.middle), ...inner.layers, ...outer.layers.slice(outer.middle)],
  middle: outer.middle + inner.middle,
});

/** A part of a leaf that folds out, and how many layers above the leaf it lies; below it, less than none. */
export interface PanelLayer extends Layer {
  above: number;
}

/** A leaf at the spine, with all that hangs on it. */
export interface Leaf {
  base: Layer;
  /** What folds out, from the spine outwards. */
  panels: readonly PanelLayer[];
  /** How far the leaves around it push it away from the spine. */
  pushed?: number;
}

/** Two parts of one sheet are joined where they meet along a line of it that is this long at least. */
const MEETS = 1;

/** Where two layers are joined on their flat sheet, if they are. */
function joint(a: Layer, b: Layer): Box | undefined {
  if (a.sheet !== b.sheet) return undefined;
  const x = [Math.max(a.flat.x0, b.flat.x0), Math.min(a.flat.x1, b.flat.x1)] as const;
  const y = [Math.max(a.flat.y0, b.flat.y0), Math.min(a.flat.y1, b.flat.y1)] as const;
  const [wide, high] = [x[1] - x[0], y[1] - y[0]];
  const isLine = (across: number, along: number) => Math.abs(across) < TOLERANCES.place && along > MEETS;
  return isLine(wide, high) || isLine(high, wide)
    ? { x0: Math.min(...x), x1: Math.max(...x), y0: Math.min(...y), y1: Math.max(...y) }
    : undefined;
}

/** The leaves of folded sheets from the top to the bottom, each with the layers that reach the spine only through it. */
export function leavesOf({ layers }: Pick<Paper, 'layers'>, spine: Spine): Leaf[] {
  const { along } = FRAMES[spine];
  const start = Math.min(...layers.map((layer) => along(outlineOf(layer))[0]));
  const isBase = (layer: Layer) => along(outlineOf(layer))[0] < start + TOLERANCES.place;
  const rest = new Set(layers.filter((layer) => !isBase(layer)));
  return layers.filter(isBase).map((base): Leaf => {
    const chain = [base];
    for (const from of chain)
      for (const other of rest)
        if (joint(from, other)) {
          rest.delete(other);
          chain.push(other);
        }
    const panels = chain
      .slice(1)
      .map((panel) => ({ ...panel, above: layers.indexOf(base) - layers.indexOf(panel) }));
    return { base, panels };
  });
}

/** A leaf with all its parts changed alike. */
export const changed = ({ base, panels, ...rest }: Leaf, change: (layer: Layer) => Layer): Leaf => ({
  ...rest,
  base: change(base),
  panels: panels.map((panel) => ({ ...panel, ...change(panel) })),
});

/** Leaves nested in each other, the inner ones pushed away from the spine by the thickness of those around them. */
export function pushedOut(leaves: readonly Leaf[], spine: Spine, caliper: number): Leaf[] {
  return leaves.map((leaf, n) => {
    const by = Math.min(n, leaves.length - 1 - n) * caliper;
    const push = { left: translate(by, 0), right: translate(-by, 0), head: translate(0, -by) }[spine];
    const moved = changed(leaf, (layer) => ({ ...layer, matrix: compose(layer.matrix, push) }));
    return by ? { ...moved, pushed: by } : moved;
  });
}

/** What a knife leaves of leaves, between so far from the spine and so far across; where nothing is left, nothing. */
export function trimmed(
  leaves: readonly Leaf[],
  spine: Spine,
  along: readonly [number, number],
  across: readonly [number, number],
): Leaf[] {
  const keep = FRAMES[spine].box(along, across);
  const cut = (layer: Layer): Layer => ({ ...layer, flat: flatOf(layer, intersect(outlineOf(layer), keep)) });
  return leaves
    .map((leaf) => changed(leaf, cut))
    .map((leaf) => ({ ...leaf, panels: leaf.panels.filter(({ flat }) => hasArea(flat)) }))
    .filter(({ base }) => hasArea(base.flat));
}

/** Where knives went, along and across. */
export interface Knives {
  along: readonly number[];
  across: readonly number[];
}

/** Whether a knife went along a line. */
function isAtKnife(line: Box, spine: Spine, knives: Knives): boolean {
  const isCut = (places: readonly number[], [from, to]: readonly [number, number]) =>
    to - from < TOLERANCES.place && places.some((place) => Math.abs(place - from) < TOLERANCES.place);
  const { along, across } = FRAMES[spine];
  return isCut(knives.along, along(line)) || isCut(knives.across, across(line));
}

/** Leaves, by their indexes, from which something that folds out was cut off. */
export function cutOffLeaves(leaves: readonly Leaf[], spine: Spine, knives: Knives): number[] {
  return leaves.flatMap(({ base, panels }, n) => {
    const chain = [base];
    for (const from of chain)
      for (const panel of panels) {
        const at = chain.includes(panel) ? undefined : joint(from, panel);
        if (at && !isAtKnife(applyToBox(from.matrix, at), spine, knives)) chain.push(panel);
      }
    return chain.length <= panels.length ? [n] : [];
  });
}

/**
 * Leaves that do not open, by their indexes: they are joined elsewhere than at the spine. What is folded just where the knife goes
 * is opened by it.
 */
export function joinedLeaves(leaves: readonly Leaf[], spine: Spine, knives: Knives): [number, number][] {
  const { along } = FRAMES[spine];
  const bySheet = new Map<number, number[]>();
  leaves.forEach(({ base: { sheet } }, n) => bySheet.set(sheet, [...(bySheet.get(sheet) ?? []), n]));
  return [...bySheet.values()].flatMap((own) =>
    own.flatMap((a, n) =>
      own.slice(n + 1).flatMap((b): [number, number][] => {
        const [one, two] = [entryAt(leaves, a).base, entryAt(leaves, b).base];
        const at = joint(one, two);
        if (!at) return [];
        const line = applyToBox(one.matrix, at);
        const [from] = along(outlineOf(one));
        const isOpen = along(line)[1] < from + TOLERANCES.place || isAtKnife(line, spine, knives);
        return isOpen ? [] : [[a, b]];
      }),
    ),
  );
}

/** Another place of the spine: what was so far from it begins there. */
export const fromSpine = (leaves: readonly Leaf[], spine: Spine, by: number): Leaf[] => {
  const move = { left: translate(-by, 0), right: translate(by, 0), head: translate(0, by) }[spine];
  return leaves.map((leaf) => changed(leaf, (layer) => ({ ...layer, matrix: compose(layer.matrix, move) })));
};
