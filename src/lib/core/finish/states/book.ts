import { applyToBox, compose, IDENTITY, translate, turnOver, type Matrix } from '../../measure/matrix';
import { overlap, type Box } from '../../measure/box';
import type { Spine } from '../../model/page';
import type { Leaf } from '../line/book';
import type { CoverLayer } from '../line/cover';
import { outlineOf, type Layer } from '../line/paper';
import { entryAt } from '../../entries';
import { stacked, topOf, type Placed } from './placed';

/** A leaf, or the front or back of a cover with its flap: parts that turn together. Its lowest part lies at height 0. */
export interface Turning {
  parts: readonly Placed[];
  /** Which of them is the one at the spine. */
  base: number;
  thick: number;
  /** Of a cover. */
  cover?: 'front' | 'back';
}

/** A book that can be opened: its spine lies on an axis of the mat. */
export interface Book {
  spine: Spine;
  /** From the front to the back. */
  turning: readonly Turning[];
  /** The spine of its cover, as it would lie beside the front. */
  back?: { layer: Layer; width: number; thick: number };
  thick: number;
}

/** The line that leaves turn about. */
const AXIS: Record<Spine, 'vertical' | 'horizontal'> = {
  left: 'vertical',
  right: 'vertical',
  head: 'horizontal',
};
/** Which way leaves lie from the spine. */
const AWAY: Record<Spine, readonly [number, number]> = { left: [1, 0], right: [-1, 0], head: [0, -1] };

const turnedOver = (part: Placed, over: Matrix, height: number): Placed => ({
  ...part,
  matrix: compose(part.matrix, over),
  up: part.up === 'front' ? 'back' : 'front',
  from: height - part.from - part.thick,
});

/** Leaves with the cover round them, if there is one, as they come out of the line. */
export function bookOf(
  leaves: readonly Leaf[],
  cover: readonly CoverLayer[] | undefined,
  spine: Spine,
  caliperOf: (sheet: number) => number,
): Book {
  const inner = leaves.map(({ base, panels }): Turning => {
    const above = panels.filter((panel) => panel.above > 0).sort((a, b) => b.above - a.above);
    const below = panels.filter((panel) => panel.above <= 0).sort((a, b) => b.above - a.above);
    const parts = stacked([...above, base, ...below], caliperOf);
    return { parts, base: above.length, thick: topOf(parts) };
  });
  const outer = cover && coverOf(cover, spine, caliperOf);
  const turning = outer ? [outer.front, ...inner, outer.back] : inner;
  const thick = turning.reduce((sum, each) => sum + each.thick, 0);
  return { spine, turning, thick, ...(outer?.spine ? { back: outer.spine } : {}) };
}

/** The front of a cover as it lies closed, its back under the block, and its spine. */
function coverOf(cover: readonly CoverLayer[], spine: Spine, caliperOf: (sheet: number) => number) {
  const axis = AXIS[spine];
  const of = (wanted: CoverLayer['part']) => cover.find(({ part }) => part === wanted);
  const [front, back] = [of('front'), of('back')];
  if (!front || !back) return undefined;
  const span = (layer: Layer): [number, number] => {
    const { x0, x1, y0, y1 } = outlineOf(layer);
    return axis === 'vertical' ? [x0, x1] : [y0, y1];
  };
  const isAfter = span(front)[0] > span(back)[0];
  // Trims of the ends lie on the other axis, as the block's do.
  const whole = outlineOf(front);
  const ends = { x: axis === 'vertical' ? 0 : -whole.x0, y: axis === 'vertical' ? -whole.y1 : 0 };
  const shiftTo = (crease: number): Matrix =>
    axis === 'vertical' ? translate(-crease, ends.y) : translate(ends.x, -crease);
  const laid = (layer: CoverLayer, matrix: Matrix): Layer => ({
    ...layer,
    matrix: compose(layer.matrix, matrix),
  });
  const creaseOf = (layer: Layer, after: boolean) => span(layer)[after ? 0 : 1];
  const toFront = shiftTo(creaseOf(front, isAfter));
  const toBack = compose(shiftTo(creaseOf(back, !isAfter)), turnOver(axis, 0));
  const side = (own: CoverLayer, flap: CoverLayer | undefined, way: Matrix, isBack: boolean): Turning => {
    const turn = (layer: Layer): Layer => ({ ...layer, up: layer.up === 'front' ? 'back' : 'front' });
    const base = isBack ? turn(laid(own, way)) : laid(own, way);
    if (!flap) return closed([base], isBack, 0);
    // Folded in about the crease between both.
    const edge = foreEdge(base, spine);
    const lies = isBack ? laid(flap, way) : turn(laid(flap, way));
    const folded = { ...lies, matrix: compose(lies.matrix, turnOver(axis, edge)) };
    return closed(isBack ? [folded, base] : [base, folded], isBack, isBack ? 1 : 0);
  };
  const closed = (layers: readonly Layer[], isBack: boolean, base: number): Turning => {
    const parts = stacked(layers, caliperOf);
    return { parts, base, thick: topOf(parts), cover: isBack ? 'back' : 'front' };
  };
  const strip = of('spine');
  const width = strip ? Math.abs(span(strip)[1] - span(strip)[0]) : 0;
  return {
    front: side(front, of('front-flap'), toFront, false),
    back: side(back, of('back-flap'), toBack, true),
    ...(strip && width > 0
      ? { spine: { layer: laid(strip, toFront), width, thick: caliperOf(strip.sheet) } }
      : {}),
  };
}

/** How far from the spine's axis a part reaches, along its axis, with the sign. */
function foreEdge(layer: Layer, spine: Spine): number {
  const { x0, x1, y0 } = applyToBox(layer.matrix, layer.flat);
  return { left: x1, right: x0, head: y0 }[spine];
}

/** A book lying closed, its front up. */
export const closedBook = (book: Book): Placed[] => openBook(book, 0);

/**
 * A book opened before one of its leaves, so that those before it lie turned over: 0 is closed, as many as there are leaves closed
 * with its back up. With `out`, what folds out of the leaves in sight is folded out.
 */
export function openBook(book: Book, before: number, out = false): Placed[] {
  const { turning, spine } = book;
  const axis = AXIS[spine];
  const isOpen = before > 0 && before < turning.length;
  const apart = isOpen && book.back ? book.back.width / 2 : 0;
  const [ax, ay] = AWAY[spine];
  const aside = (cover: boolean, sign: 1 | -1): Matrix =>
    cover && apart ? translate(sign * ax * apart, sign * ay * apart) : IDENTITY;
  const parts: Placed[] = [];
  const heights: number[] = [];
  let height = 0;
  for (let n = turning.length - 1; n >= before; n--) {
    heights[n] = height;
    height += turning[n]?.thick ?? 0;
  }
  height = 0;
  for (let n = 0; n < before; n++) {
    heights[n] = height;
    height += turning[n]?.thick ?? 0;
  }
  turning.forEach((leaf, n) => {
    const ground = heights[n] ?? 0;
    const isTurned = n < before;
    const isShown = n === before || n === before - 1;
    const lying = out && isShown && isOpen ? foldedOut(leaf) : leaf.parts;
    const way = aside(!!leaf.cover, isTurned ? -1 : 1);
    for (const part of lying) {
      const lies = isTurned ? turnedOver(part, turnOver(axis, 0), leaf.thick) : part;
      parts.push({ ...lies, matrix: compose(lies.matrix, way), from: lies.from + ground });
    }
  });
  if (book.back) parts.push(spineOf(book.back, book, before));
  return parts;
}

/** The spine of a cover: standing where the book is closed, flat between its halves where it is open. */
function spineOf({ layer, width, thick }: NonNullable<Book['back']>, book: Book, before: number): Placed {
  const [ax, ay] = AWAY[book.spine];
  const sign = ax + ay;
  const stands = (degrees: number, from: number, at = 0): Placed => ({
    ...layer,
    matrix: compose(layer.matrix, translate(ax * at, ay * at)),
    from,
    thick,
    tilt: { axis: AXIS[book.spine], at: sign * at, degrees: sign * degrees },
  });
  if (before === 0) return stands(-90, book.thick - thick);
  return before < book.turning.length ? stands(-180, 0, -width / 2) : stands(-270, 0);
}

/** A leaf with what folds out of it lying beside it, as it lay on the sheet. */
function foldedOut({ parts, base }: Turning): Placed[] {
  const { matrix, up, from } = entryAt(parts, base);
  return parts.map((part) => ({ ...part, matrix, up, from }));
}

/** Whether something folds out of the leaves between which a book lies open. */
export const hasFoldOuts = ({ turning }: Book, before: number): boolean =>
  [before - 1, before].some((n) => (turning[n]?.parts.length ?? 0) > 1 && !isAtEnd(n, turning.length));
const isAtEnd = (n: number, many: number) => n < 0 || n >= many;

/** Before which leaf a book is opened so that a part of a sheet, seen from a face of it, is in sight. */
export function openingOf(
  { turning }: Book,
  sheet: number,
  face: 'front' | 'back',
  flat: Box,
): number | undefined {
  const isIt = (part: Placed) => part.sheet === sheet && overlap(part.flat, flat);
  const n = turning.findIndex(({ parts }) => parts.some(isIt));
  const leaf = turning[n];
  if (!leaf) return undefined;
  return entryAt(leaf.parts, leaf.base).up === face ? n : n + 1;
}
