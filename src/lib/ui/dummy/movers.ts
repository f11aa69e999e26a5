import * as three from 'three';
import { overlap } from '../../core/measure/box';
import { applyPose, poseOf, type Pose } from '../../core/finish/states/pose';
import type { Placed } from '../../core/finish/states/placed';

/** A part on its way. */
export interface Mover {
  to: Placed;
  from: Placed;
  pose: Pose;
  /** It stays where it is. */
  still: boolean;
}

/** Parts that were not there before come from so high above, in points. */
const FROM_ABOVE = 220;

/** Each part with where it was: it, or the larger one that it was part of; new ones come from above. */
export function moversOf(from: readonly Placed[], to: readonly Placed[]): Mover[] {
  const before = new Map<number, Placed[]>();
  for (const part of from) {
    if (part.waste) continue;
    const met = before.get(part.sheet);
    if (met) met.push(part);
    else before.set(part.sheet, [part]);
  }
  return to.map((part, n) => {
    const met = before.get(part.sheet)?.find(({ flat }) => overlap(flat, part.flat));
    const height = from.length ? FROM_ABOVE * (1 + (0.4 * n) / to.length) : 0;
    const start = part.waste
      ? part
      : met
        ? { ...met, flat: part.flat, thick: part.thick }
        : { ...part, from: part.from + height };
    return { to: part, from: start, pose: poseOf(start), still: isSame(start, part) };
  });
}

const isSame = (a: Placed, b: Placed): boolean =>
  a.from === b.from &&
  a.up === b.up &&
  a.tilt === b.tilt &&
  a.matrix.every((each, n) => each === b.matrix[n]);

/** A pose as three.js has it. */
export const matrixOf = ([x, y, z]: Pose): three.Matrix4 =>
  new three.Matrix4().set(...x, ...y, ...z, 0, 0, 0, 1);

/** What parts take up that lie. */
export function boundsOf(parts: readonly Placed[]): three.Box3 {
  const all = new three.Box3();
  const corner = new three.Vector3();
  for (const part of parts) {
    if (part.tilt) continue;
    const pose = poseOf(part);
    const { x0, x1, y0, y1 } = part.flat;
    const high = part.thick / 2;
    all.expandByPoint(corner.set(...applyPose(pose, [x0, y0, -high])));
    all.expandByPoint(corner.set(...applyPose(pose, [x1, y1, high])));
  }
  return all.isEmpty() ? all.expandByPoint(corner.set(0, 0, 0)) : all;
}
