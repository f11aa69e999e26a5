import { bounds, heightOf, overlap, sizeBox, widthOf, type Box, type Size } from '../../measure/box';
import {
  applyToBox,
  compose,
  translate,
  turnMatrix,
  turnOver,
  type Matrix,
  type Turn,
} from '../../measure/matrix';
import { TOLERANCES } from '../../measure/tolerances';
import type { FoldOperation } from '../operations';

/*
 * Paper as it lies before an operator. Sheets are known by their numbers only, not by what is printed on them. Lengths in points.
 */

/** A part of a sheet between creases and cuts, where it lies now. */
export interface Layer {
  /** Its sheet, from 1. */
  sheet: number;
  /** Which part of the sheet it is, as the front is seen. */
  flat: Box;
  /** From the front of the sheet to where it lies. */
  matrix: Matrix;
  /** Which face of the sheet looks up. */
  up: 'front' | 'back';
}

/** Paper in one piece, or several pieces on one another: layers from the top to the bottom. */
export interface Paper {
  layers: readonly Layer[];
  /** How many layers lie above the place where the last fold opens. */
  middle: number;
}

/** Where a layer lies. */
export const outlineOf = ({ flat, matrix }: Layer): Box => applyToBox(matrix, flat);
/** What all layers cover. */
export const extentOf = ({ layers }: Pick<Paper, 'layers'>): Box => bounds(layers.map(outlineOf));

/** A part of a sheet that lies with its front up, its lower left corner at the origin. */
export const cutFrom = (sheet: number, flat: Box): Paper => ({
  layers: [{ sheet, flat, matrix: translate(-flat.x0, -flat.y0), up: 'front' }],
  middle: 0,
});

/** A whole sheet. */
export const sheetOf = (sheet: number, size: Size): Paper => cutFrom(sheet, sizeBox(size));

const moved = (layers: readonly Layer[], by: Matrix): Layer[] =>
  layers.map((layer) => ({ ...layer, matrix: compose(layer.matrix, by) }));

/** Paper moved, and turned without being turned over. */
export const placedBy = ({ layers, middle }: Paper, by: Matrix): Paper => ({
  layers: moved(layers, by),
  middle,
});

/** Turns paper clockwise; its lower left corner is the origin again. */
export const turned = (paper: Paper, turn: Turn): Paper => placedBy(paper, turnMatrix(extentOf(paper), turn));

const onItsFace = (layers: readonly Layer[], mirror: Matrix): Layer[] =>
  moved(layers, mirror)
    .reverse()
    .map((layer) => ({ ...layer, up: layer.up === 'front' ? 'back' : 'front' }));

/** Turns paper over from side to side. */
export function turnedOver({ layers, middle }: Paper): Paper {
  const { x0, x1 } = extentOf({ layers });
  return { layers: onItsFace(layers, turnOver('vertical', (x0 + x1) / 2)), middle: layers.length - middle };
}

/** A layer in two where a line crosses it: what lies before the line, and after it. */
function parted(layer: Layer, axis: FoldOperation['axis'], at: number): { layer: Layer; after: boolean }[] {
  const [low, high] = axis === 'vertical' ? (['x0', 'x1'] as const) : (['y0', 'y1'] as const);
  const outline = outlineOf(layer);
  if (outline[high] <= at + TOLERANCES.place) return [{ layer, after: false }];
  if (outline[low] >= at - TOLERANCES.place) return [{ layer, after: true }];
  return [
    { layer: { ...layer, flat: flatOf(layer, { ...outline, [high]: at }) }, after: false },
    { layer: { ...layer, flat: flatOf(layer, { ...outline, [low]: at }) }, after: true },
  ];
}

/** The part of its sheet that a layer has at a place. */
export function flatOf({ matrix: [a, b, c, d, e, f] }: Layer, box: Box): Box {
  // Paper is turned by quarters and turned over: the inverse has the same numbers.
  const back: Matrix = [a, c, b, d, -(a * e + b * f), -(c * e + d * f)];
  return applyToBox(back, box);
}

/** Folds paper once: the layers of the part that moves, from the side that they go to, are laid over or under the rest. */
export function folded({ layers }: Paper, fold: FoldOperation): Paper {
  const { axis, moves, goes } = fold;
  const extent = extentOf({ layers });
  const at = fold.at + (axis === 'vertical' ? extent.x0 : extent.y0);
  const isAfter = moves === 'right' || moves === 'head';
  const parts = layers.flatMap((layer) => parted(layer, axis, at));
  const movable = parts.filter(({ after }) => after === isAfter).map(({ layer }) => layer);
  const moving = new Set(outermost(goes === 'over' ? movable : [...movable].reverse(), fold.layers));
  const mirror = turnOver(axis, at);
  const over = onItsFace(
    parts.flatMap(({ layer }) => (moving.has(layer) ? [layer] : [])),
    mirror,
  );
  const rest = parts.flatMap(({ layer }) => (moving.has(layer) ? [] : [layer]));
  return goes === 'over'
    ? { layers: [...over, ...rest], middle: over.length }
    : { layers: [...rest, ...over], middle: rest.length };
}

/** So many layers anywhere, counted from the first. */
function outermost(layers: readonly Layer[], many: number): Layer[] {
  const taken: Layer[] = [];
  for (const layer of layers) {
    const above = taken.filter((other) => overlap(outlineOf(other), outlineOf(layer))).length;
    if (above >= many) break;
    taken.push(layer);
  }
  return taken;
}

/** The lower left corner at the origin. */
export function atOrigin(paper: Paper): Paper {
  const { x0, y0 } = extentOf(paper);
  return placedBy(paper, translate(-x0, -y0));
}

export const sizeOfPaper = (paper: Paper): Size => {
  const extent = extentOf(paper);
  return { width: widthOf(extent), height: heightOf(extent) };
};
