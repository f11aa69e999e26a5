import * as z from 'zod';
import { cutEdges, foldLines } from './edges';
import { defineMark } from './markKind';

/** Where to cut and to fold, as paths on layers of their own that neither show nor print: for a cutter or a creaser. */
export const paths = defineMark({
  kind: 'paths',
  setting: z.boolean().optional(),
  lines({ placed, slots, put }) {
    for (const { x0, y0, x1, y1 } of foldLines(placed)) put('fold-path', [x0, y0, x1, y1]);
    for (const { axis, at, from, to } of cutEdges(slots))
      put('cut-path', axis === 'vertical' ? [at, from, at, to] : [from, at, to, at]);
  },
});
