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
