import type { Box } from '../core/measure/box';
import type { Matrix } from '../core/measure/matrix';

/** A number as content streams take it: no exponent, at most five decimals. */
export const figure = (value: number): string => {
  const text = value.toFixed(5).replace(/\.?0+$/, '');
  return text === '-0' ? '0' : text;
};

/** The operands and operator that multiply the current matrix. */
export const concat = (matrix: Matrix): string => `${matrix.map((entry) => entry.toFixed(8).replace(/\.?0+$/, '')).join(' ')} cm`;

/** A rectangle that clips what follows. */
export const clipTo = (b: Box): string => `${figure(b.x0)} ${figure(b.y0)} ${figure(b.x1 - b.x0)} ${figure(b.y1 - b.y0)} re W n`;

/** A box as PDF writes it. */
export const boxNumbers = (b: Box): number[] => [b.x0, b.y0, b.x1, b.y1].map((value) => Number(figure(value)));
