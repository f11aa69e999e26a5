import * as z from 'zod';
import { cutEdges } from './edges';
import { defineMark } from './markKind';

/** Where to cut: short lines at both ends of every trim. A trim with others in its way at both ends has its marks beyond all of them, in line. */
export const trim = defineMark({
  kind: 'trim',
  setting: z.boolean(),
  lines({ slots, trims, ends }) {
    for (const { axis, at, from, to } of cutEdges(slots)) {
      const [first, last] = axis === 'vertical' ? [trims.y0, trims.y1] : [trims.x0, trims.x1];
      if (!ends('trim-mark', axis, at, from, to)) ends('trim-mark', axis, at, first, last);
    }
  },
});
