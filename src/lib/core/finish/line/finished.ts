import { heightOf, widthOf, type Box, type Size } from '../../measure/box';
import { applyToBox, compose, translate, type Matrix } from '../../measure/matrix';
import type { Spine } from '../../model/page';
import type { CoverFace } from '../operations';
import { FRAMES, type Leaf } from './book';
import { outlineOf, type Layer } from './paper';

/** Where in what came out a page is: faces of leaves and of what hangs on them, counted from 0; parts of a cover; panels of a folded piece. */
export type PageAt =
  { leaf: number; panel?: number; face: 'front' | 'back' } | { cover: CoverFace; face: 'front' | 'back' };

/** One page as a reader meets it, upright. */
export interface FinishedPage {
  at: PageAt;
  size: Size;
  /** Where it lies on paper: the sheet, its face, and the part of it, seen from the front. */
  sheet: number;
  face: 'front' | 'back';
  flat: Box;
  /** From the front of the sheet, through the paper where its back is met, to the page, from its lower left corner. */
  matrix: Matrix;
  /** How far the leaves around it push it away from the spine. */
  pushed?: number;
}

/** What a line gives for a piece of work. */
export interface Finished {
  /** Which of the things that come out it is, and which of those alike, both from 1. */
  product: number;
  copy: number;
  pages: readonly FinishedPage[];
  /** As it comes out. */
  size: Size;
  /** Pairs of leaves that do not open, from 0. */
  joined: readonly (readonly [number, number])[];
  /** Leaves, from 0, from which something that folds out was cut off. */
  cutOff: readonly number[];
}

const OTHER = { front: 'back', back: 'front' } as const;

/** Both faces of a part of a sheet that lies so, seen from above and, turned over about the spine, from below. */
export function facesOf(
  { sheet, flat }: Pick<Layer, 'sheet' | 'flat'>,
  { matrix, up }: Pick<Layer, 'matrix' | 'up'>,
  spine: Spine,
  at: (face: 'front' | 'back') => PageAt,
): [FinishedPage, FinishedPage] {
  const lies = applyToBox(matrix, flat);
  const size = { width: widthOf(lies), height: heightOf(lies) };
  const above = compose(matrix, translate(-lies.x0, -lies.y0));
  const over: Matrix = spine === 'head' ? [1, 0, 0, -1, 0, size.height] : [-1, 0, 0, 1, size.width, 0];
  const page = { sheet, flat, size };
  return [
    { ...page, at: at('front'), face: up, matrix: above },
    { ...page, at: at('back'), face: OTHER[up], matrix: compose(above, over) },
  ];
}

/** The pages of leaves: the two faces of each, then those of what folds out of it, as it lies open. */
export const pagesOfLeaves = (leaves: readonly Leaf[], spine: Spine): FinishedPage[] =>
  leaves.flatMap(({ base, panels, pushed }, leaf) =>
    [
      ...facesOf(base, base, spine, (face) => ({ leaf, face })),
      ...panels.flatMap((panel, n) => facesOf(panel, base, spine, (face) => ({ leaf, panel: n, face }))),
    ].map((page) => (pushed ? { ...page, pushed } : page)),
  );

/** A piece as it lies open, with the parts that its creases make of it: what folds out, from the spine outwards. */
export function openLeaf(open: Layer, parts: readonly Layer[], spine: Spine): Leaf {
  const { along } = FRAMES[spine];
  const from = ({ flat }: Layer) => along(applyToBox(open.matrix, flat))[0];
  const [base = open, ...panels] = parts
    .map(({ flat }): Layer => ({ ...open, flat }))
    .sort((a, b) => from(a) - from(b));
  return { base, panels: panels.map((panel) => ({ ...panel, above: 0 })) };
}

/** The panels of a piece as it lies open: those of its upper face from the left, rows from the head; then, turned over, those of the other. */
export function pagesOfPanels(open: Layer, parts: readonly Layer[], spine: Spine): FinishedPage[] {
  const whole = outlineOf(open);
  const turnedOver = (box: Box): Box =>
    spine === 'head'
      ? { ...box, y0: whole.y0 + whole.y1 - box.y1, y1: whole.y0 + whole.y1 - box.y0 }
      : { ...box, x0: whole.x0 + whole.x1 - box.x1, x1: whole.x0 + whole.x1 - box.x0 };
  const seen = (face: 0 | 1) =>
    parts
      .map((part) => {
        const box = applyToBox(open.matrix, part.flat);
        return { part, box: face ? turnedOver(box) : box };
      })
      .sort(({ box: a }, { box: b }) => (Math.abs(a.y1 - b.y1) > 1 ? b.y1 - a.y1 : a.x0 - b.x0))
      .map(({ part }, n) => facesOf(part, open, spine, (own) => ({ leaf: 0, panel: n, face: own }))[face]);
  return [...seen(0), ...seen(1)];
}
