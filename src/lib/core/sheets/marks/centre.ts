import * as z from 'zod';
import { defineMark, type Axis } from './markKind';
import { TOLERANCES } from '../../measure/tolerances';

/** The middle of the work. Where a fold or a trim is marked there already, that mark is the centre's too. */
export const centre = defineMark({
  kind: 'centre',
  setting: z.boolean().optional(),
  lines({ trims, lines, ends }) {
    const marked = [...lines].filter(({ kind }) => kind === 'fold-mark' || kind === 'trim-mark');
    const isMarked = (axis: Axis, at: number) =>
      marked.some(({ x0, x1, y0, y1 }) =>
        axis === 'vertical'
          ? x1 - x0 < TOLERANCES.place && Math.abs(x0 - at) < TOLERANCES.place
          : y1 - y0 < TOLERANCES.place && Math.abs(y0 - at) < TOLERANCES.place,
      );
    const [x, y] = [(trims.x0 + trims.x1) / 2, (trims.y0 + trims.y1) / 2];
    if (!isMarked('vertical', x)) ends('centre-mark', 'vertical', x, trims.y0, trims.y1);
    if (!isMarked('horizontal', y)) ends('centre-mark', 'horizontal', y, trims.x0, trims.x1);
  },
});
