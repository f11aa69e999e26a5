import { bounds, type Box } from '../../core/measure/box';
import type { Gray } from '../gray';
import { turnedBack } from './picture';

/** A picture set level: turned back by `angle` degrees about its middle, with `k` dots for each of the picture's own. */
export interface Level {
  gray: Gray;
  angle: number;
  k: number;
  /** From a dot of the picture to one of the level one, and back. */
  to(x: number, y: number): { x: number; y: number };
  from(x: number, y: number): { x: number; y: number };
}

/** Sets a picture level; what comes in from outside it is `ground`. */
export function levelled(picture: Gray, angle: number, k: number, ground: number): Level {
  const quarter = Math.abs(Math.round(angle / 90)) % 2 === 1;
  const { width: w, height: h } = picture;
  const [width, height] = quarter ? [h, w] : [w, h];
  const turn = (angle * Math.PI) / 180;
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  return {
    gray: turnedBack(picture, angle, { x: 0, y: 0, width, height }, k, ground),
    angle,
    k,
    to: (x, y) => ({
      x: (width / 2 + (x - w / 2) * cos + (y - h / 2) * sin) * k,
      y: (height / 2 - (x - w / 2) * sin + (y - h / 2) * cos) * k,
    }),
    from: (x, y) => ({
      x: w / 2 + (x / k - width / 2) * cos - (y / k - height / 2) * sin,
      y: h / 2 + (x / k - width / 2) * sin + (y / k - height / 2) * cos,
    }),
  };
}

/** The box about points of a picture once it is level. */
export const boxAround = (points: readonly { x: number; y: number }[]): Box =>
  bounds(points.map(({ x, y }) => ({ x0: x, y0: y, x1: x, y1: y })));
