import * as z from 'zod';
import { mm } from '../../measure/unit';
import { markLine, type Item } from '../../model/surface';
import { MARK_LENGTH, MARK_WEIGHT } from './markSize';
import { defineMark } from './markKind';

/** By practice: a circle with a cross. */
const RADIUS = mm(1.6);
/** Where along a side it is tried, as shares of it: in the middle, unless something is there. */
const TRIED = [0.5, 0.42, 0.58, 0.34, 0.66, 0.26, 0.74];

/** A cross in a circle, in all inks, in the middle of each side. */
export const registration = defineMark({
  kind: 'registration',
  setting: z.boolean().optional(),
  draw({ settings, around, reach, take }) {
    const half = (settings.length ?? MARK_LENGTH) / 2;
    const [w, h] = [around.x1 - around.x0, around.y1 - around.y0];
    const sides = [
      (share: number) => ({ x: around.x0 + share * w, y: around.y1 + reach + half }),
      (share: number) => ({ x: around.x0 + share * w, y: around.y0 - reach - half }),
      (share: number) => ({ x: around.x0 - reach - half, y: around.y0 + share * h }),
      (share: number) => ({ x: around.x1 + reach + half, y: around.y0 + share * h }),
    ];
    const items = sides.flatMap((at) => {
      const place = TRIED.map(at).find(({ x, y }) =>
        take({ x0: x - half, x1: x + half, y0: y - half, y1: y + half }),
      );
      return place ? crossAt(place, half, settings.weight ?? MARK_WEIGHT) : [];
    });
    return items.length ? items : undefined;
  },
});

function crossAt({ x, y }: { x: number; y: number }, half: number, width: number): Item[] {
  const radius = Math.min(RADIUS, 0.7 * half);
  return [
    markLine({ x0: x - half, x1: x + half, y0: y, y1: y }, width),
    markLine({ x0: x, x1: x, y0: y - half, y1: y + half }, width),
    { kind: 'circle', x, y, radius, width, ink: 'all', layer: 'marks' },
  ];
}
