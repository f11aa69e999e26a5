import type { Size } from '../measure/box';
import { NAMED_SIZES, type NamedSize } from './sizes';

/** Sheet sizes offered for printing on, portrait, in points: the named sizes a sheet-fed press or printer takes. */
const NAMES = [
  'A4',
  'SRA4',
  'RA4',
  'A3',
  'SRA3',
  'RA3',
  'A2',
  'SRA2',
  'RA2',
  'A1',
  'SRA1',
  'B4',
  'B3',
  'B2',
  'Letter',
  'Legal',
  'Tabloid',
  '12 × 18',
  '13 × 19',
];
export const STOCKS: readonly NamedSize[] = NAMES.map((name) =>
  NAMED_SIZES.find((size) => size.name === name)!,
);

/** Less than this, in points, does not keep a piece from fitting. */
const SLACK = 1e-6;

/** True when `size` lies within `into` as both are turned. */
export const fits = (size: Size, into: Size): boolean =>
  size.width <= into.width + SLACK && size.height <= into.height + SLACK;

/** The stock that takes a piece of this size in one of its orientations, smallest area first. */
export const stocksFor = (needed: Size): NamedSize[] =>
  STOCKS.filter(
    (size) => fits(needed, size) || fits(needed, { width: size.height, height: size.width }),
  ).sort((a, b) => a.width * a.height - b.width * b.height);
