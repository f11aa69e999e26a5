import * as z from 'zod';
import { PROCESS } from '../../numbers/jobInks';
import { defineMark } from './markKind';
import { APART, PATCH, plateInk } from './plates';

/** The colour bar: patches of each ink, solid and as a half tone, at the foot or at the head. */
export const bar = defineMark({
  kind: 'bar',
  setting: z.boolean().optional(),
  room: APART + PATCH,
  draw({ around, far, say, take }) {
    const patches = [
      ...PROCESS.flatMap((_, n) => [plateInk(n, 1), plateInk(n, 0.5)]),
      ...say.job.spots().flatMap(({ ink }) => [ink, { ...ink, tint: 0.5 }]),
    ];
    const width = patches.length * PATCH;
    const x0 = (around.x0 + around.x1 - width) / 2;
    const ys = [around.y0 - far - APART - PATCH, around.y1 + far + APART];
    const y0 = ys.find((y) => take({ x0, x1: x0 + width, y0: y, y1: y + PATCH }));
    if (y0 === undefined) return undefined;
    return patches.map((ink, n) => ({
      kind: 'rect',
      box: { x0: x0 + n * PATCH, x1: x0 + (n + 1) * PATCH, y0, y1: y0 + PATCH },
      ink,
      layer: 'marks',
    }));
  },
});
