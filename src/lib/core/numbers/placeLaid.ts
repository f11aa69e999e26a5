import type { Laid, Placing, Purpose } from '../model/laid';
import { applyToBox, compose, scale, translate, type Matrix } from '../measure/matrix';
import { heightOf, sizeBox, widthOf, type Box, type Size } from '../measure/box';
import { bleedBox } from '../pages/page';
import type { Page, Side } from '../model/page';
import { cornerOf, frameOf } from './placeLines';
import { both } from '../entries';
import { mm } from '../measure/unit';

/** Lines that a tool follows print over the art: what they knocked out would show where the tool is a hair off. */
export const overprints = (purpose: Purpose): boolean => purpose !== 'printing';

/** From the graphic's own space to the page's. */
export function placeLaid({ size, placing, scale: [sx, sy] }: Laid, page: Page, side: Side): Matrix {
  const own = compose(scale(sx, sy), turnBy(placing.turn));
  const box = applyToBox(own, sizeBox(size));
  const to = boxOf(page, side, placing.box);
  const corner = cornerOf({ edge: 'foot', across: placing.x }, side);
  const fore = cornerOf({ edge: 'foot', across: 'outer' }, side).x === 'left' ? -1 : 1;
  const x = {
    left: to.x0 + placing.dx - box.x0,
    right: to.x1 - placing.dx - box.x1,
    centre: (to.x0 + to.x1 - widthOf(box)) / 2 - box.x0 + fore * placing.dx,
  }[corner.x];
  const y = {
    foot: to.y0 + placing.dy - box.y0,
    head: to.y1 - placing.dy - box.y1,
    centre: (to.y0 + to.y1 - heightOf(box)) / 2 - box.y0 + placing.dy,
  }[placing.y];
  return compose(own, translate(x, y));
}

/** The placing of something laid on a page, moved by so much on that page; its twin on the other face moves alike. */
export function movedBy(laid: Laid, by: { x: number; y: number }, page: Page, side: Side): Placing {
  const [from, on] = both([0, 1], (more) => {
    const { dx, dy } = laid.placing;
    return placeLaid({ ...laid, placing: { ...laid.placing, dx: dx + more, dy: dy + more } }, page, side);
  });
  return {
    ...laid.placing,
    dx: laid.placing.dx + by.x / (on[4] - from[4]),
    dy: laid.placing.dy + by.y / (on[5] - from[5]),
  };
}

const boxOf = (page: Page, side: Side, box: Placing['box']): Box =>
  box === 'bleed' ? bleedBox(page, side) : frameOf(page, side, box);

function turnBy(degrees: number): Matrix {
  const angle = (-degrees * Math.PI) / 180;
  const [cos, sin] = both([Math.cos(angle), Math.sin(angle)], (value) =>
    Math.abs(value) < 1e-12 ? 0 : value,
  );
  return [cos, sin, -sin, cos, 0, 0];
}

/** Which side of an object a graphic stands at, as the leaf mirrors it. */
/** How far a graphic stands off an object that it is put beside, as a form begins; by practice. */
export const BESIDE_GAP = mm(3);
export const BESIDE = ['outer', 'inner', 'head', 'foot'] as const;
export type Beside = (typeof BESIDE)[number];

/**
 * The placing that puts a graphic `gap` points beside an object on a page, its middle level with that of the object. It is
 * measured from the outer edge, so that it holds on both faces of every leaf whose objects mirror too.
 */
export function placeBeside(
  object: Box,
  how: { at: Beside; gap: number },
  size: Size,
  page: Page,
  side: Side,
): Placing {
  const at =
    how.at === 'outer' || how.at === 'inner' ? cornerOf({ edge: 'foot', across: how.at }, side).x : how.at;
  const [x, y] = [(object.x0 + object.x1 - size.width) / 2, (object.y0 + object.y1 - size.height) / 2];
  const to = {
    left: { x: object.x0 - how.gap - size.width, y },
    right: { x: object.x1 + how.gap, y },
    centre: { x, y },
    foot: { x, y: object.y0 - how.gap - size.height },
    head: { x, y: object.y1 + how.gap },
  }[at];
  const edge = to.y + size.height / 2 > page.trim.height / 2 ? 'head' : 'foot';
  const placing: Placing = { box: 'trim', x: 'outer', y: edge, dx: 0, dy: 0, turn: 0 };
  const laid: Laid = { step: '', arts: [], size, placing, scale: [1, 1] };
  const from = placeLaid(laid, page, side);
  return movedBy(laid, { x: to.x - from[4], y: to.y - from[5] }, page, side);
}
