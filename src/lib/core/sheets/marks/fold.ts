import * as z from 'zod';
import { foldLines } from './edges';
import { defineMark } from './markKind';

/** Where to fold: short lines at both ends of every fold. */
export const fold = defineMark({
  kind: 'fold',
  setting: z.boolean(),
  lines({ placed, ends }) {
    for (const { x0, y0, x1, y1 } of foldLines(placed))
      if (y1 - y0 > x1 - x0) ends('fold-mark', 'vertical', x0, y0, y1);
      else ends('fold-mark', 'horizontal', y0, x0, x1);
  },
});
