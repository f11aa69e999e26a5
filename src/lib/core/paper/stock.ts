import * as z from 'zod';
import type { Size } from '../measure/box';
import { inPoints, pageLength } from '../measure/lengthSchema';
import { mm } from '../measure/unit';
import { NAMED_SIZES, sameSize, type NamedSize } from './sizes';
import { foundIn } from '../entries';
import { TOLERANCES } from '../measure/tolerances';

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
  foundIn(NAMED_SIZES, (size) => size.name === name),
);

/** True when `size` lies within `into` as both are turned. */
export const fits = (size: Size, into: Size): boolean =>
  size.width <= into.width + TOLERANCES.sum && size.height <= into.height + TOLERANCES.sum;

/** The stock that takes a piece of this size in one of its orientations, smallest area first. */
export const stocksFor = (needed: Size): NamedSize[] =>
  STOCKS.filter(
    (size) => fits(needed, size) || fits(needed, { width: size.height, height: size.width }),
  ).sort((a, b) => a.width * a.height - b.width * b.height);

/** Thicker, in points, is board. */
export const MOST_CALIPER = mm(5);

/** Paper to print on. Grammage in g/m², bulk in cm³/g, thickness in points; the grain runs along its long or its short side. */
export const stockSchema = z.object({
  width: pageLength,
  height: pageLength,
  grammage: z.number().min(10).max(2000).optional(),
  bulk: z.number().min(0.3).max(5).optional(),
  caliper: inPoints(z.number().positive().max(MOST_CALIPER)).optional(),
  grain: z.enum(['long', 'short']).optional(),
});
export type Stock = z.infer<typeof stockSchema>;

/** The same sheet, lying or standing, of the same paper as far as that is known. */
export const samePaper = (a: Stock, b: Stock): boolean =>
  (sameSize(a, b) || sameSize(a, { width: b.height, height: b.width })) &&
  (['grammage', 'bulk', 'caliper', 'grain'] as const).every((key) => a[key] === b[key]);

/** A leaf as thick as 100 g/m² at 1 cm³/g: until the paper is known. */
export const PLAIN_CALIPER = mm(0.1);

/** Thickness of one sheet in points: as given, else grammage × bulk, which is micrometres (ISO 534); undefined if neither is known. */
export function caliperOf({ caliper, grammage, bulk }: Stock): number | undefined {
  if (caliper !== undefined) return caliper;
  return grammage === undefined || bulk === undefined ? undefined : mm((grammage * bulk) / 1000);
}

/** Weight in grams of so many square points of a stock. */
export const weightOf = (area: number, { grammage }: Stock): number | undefined =>
  grammage === undefined ? undefined : (grammage * area) / mm(1000) ** 2;
