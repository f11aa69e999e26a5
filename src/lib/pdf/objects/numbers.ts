import type { Box } from '../../core/measure/box';
import type { Matrix } from '../../core/measure/matrix';

/** A number as content streams take it: at most five decimals, and so never an exponent. */
export const figure = (value: number): string => String(Math.round(value * 1e5) / 1e5);

/** The operands and operator that multiply the current matrix; six decimals, so that a scale is true across a whole sheet. */
export const concat = (matrix: Matrix): string =>
  `${sixth(matrix[0])} ${sixth(matrix[1])} ${sixth(matrix[2])} ${sixth(matrix[3])} ${sixth(matrix[4])} ${sixth(matrix[5])} cm`;
const sixth = (entry: number): number => Math.round(entry * 1e6) / 1e6;

/** A rectangle that clips what follows. */
export const clipTo = (b: Box): string =>
  `${figure(b.x0)} ${figure(b.y0)} ${figure(b.x1 - b.x0)} ${figure(b.y1 - b.y0)} re W n`;

/** A box as PDF writes it. */
export const boxNumbers = (b: Box): number[] =>
  [b.x0, b.y0, b.x1, b.y1].map((value) => Number(figure(value)));
